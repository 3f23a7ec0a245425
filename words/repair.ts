import type { Nearby, RepairCode, RiskCode, WhyNot } from '../core/repair'
import { sayBreach } from './breach'
import type { Speaker } from './say'

/** What a repair is called. */
export const sayRepair = (code: RepairCode, { t }: Speaker): string => t(`repairOption.${code}`, {})
/** How it holds, and what may come of it. */
export const sayRisk = (risk: RiskCode, { t }: Speaker): string => t(`repairRisk.${risk}`, {})
/** Why it is none. */
export const sayWhyNot = ({ code, params }: WhyNot, { t }: Speaker): string => t(`repairWhyNot.${code}`, params)
/** What else is due where a box is open. */
export const sayNearby = ({ code, rule, params }: Nearby, speaker: Speaker): string => {
  if (rule) return sayBreach({ code: rule, params }, speaker)
  const { t } = speaker
  return t(`repairNearby.${code}`, code === 'seen' ? { ...params, what: t(`sighted.${params.what}`, {}) } : params)
}
