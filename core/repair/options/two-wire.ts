import { genericSystem, layConversion } from '../../path'
import { coded } from '../../refusal'
import { pathOf } from '../../site'
import type { RepairAsk, Tried, WhyNot } from '../repair'
import { triedWith } from '../tried'

/** What a controller’s path speaks where it has none yet: old cable is never twisted, so the plain one. */
const NEW_SYSTEM = genericSystem('switched', 'Switched path')

/** The cable with the fault as a two-wire path: its bad cores are left out, its valves go behind decoders. */
export function convertedCable(ask: RepairAsk): Tried[] | WhyNot {
  const { damage, controller } = ask
  const [first] = damage.ways
  if (!first) return coded('no_cable')
  const path = pathOf(damage.site, controller)
  if (path && path.system === null) return coded('no_system', [])
  const laid = layConversion(damage.site, controller, first.cable, path?.system ?? NEW_SYSTEM)
  if ('code' in laid) return laid
  const { decoders, arrestors, places, isFirstPath } = laid
  const modules = isFirstPath ? 1 : 0
  return [
    triedWith(ask, { site: laid.site }, places, {
      work: { decoder: decoders, prove: laid.conversion.legs.flat().length, module: modules },
      parts: { decoder: decoders, arrestor: arrestors, path_module: modules },
    }),
  ]
}
