import type { Mend, SizingAnswer } from '../core/sizing'
import type { Site } from '../core/site'
import { say, type Speaker } from './index'

/** Hundredths of the property's money, as figures alone: its currency is not on record. */
export const moneyText = (cents: number): string => (cents / 100).toFixed(2)
export const voltText = (volt: number): string => `${volt.toFixed(2)} V`

/** What the answer is, in a sentence or two: verdict first. */
export function sayWeakest(answer: SizingAnswer, site: Site, speaker: Speaker): string {
  switch (answer.kind) {
    case 'sized':
      return say(
        {
          code:
            answer.bound_cents === null
              ? 'sizing.sized'
              : answer.bound_cents === answer.cost_cents
                ? 'sizing.cheapest'
                : 'sizing.near',
          params: {
            cost: moneyText(answer.cost_cents),
            gap: answer.bound_cents === null ? '' : ((1 - answer.bound_cents / answer.cost_cents) * 100).toFixed(2),
          },
        },
        speaker,
      )
    case 'infeasible':
      return say(
        {
          code: 'sizing.infeasible',
          params: { thread: threadName(site, answer.worst.watch), shortfall: voltText(answer.shortfall_V) },
        },
        speaker,
      )
    case 'beyond_table':
      return say(
        {
          code: 'sizing.beyond_table',
          params: {
            thread: threadName(site, answer.worst.watch),
            length_m: answer.length_m,
            longest_m: answer.longest_m,
          },
        },
        speaker,
      )
    default:
      return say({ code: `sizing.${answer.kind}`, params: {} }, speaker)
  }
}

export function sayMend(mend: Mend, speaker: Speaker): string {
  const { code, ...params } = mend
  return say(
    {
      code: `mend.${code}`,
      params: Object.fromEntries(
        Object.entries(params).map(([k, v]) => [k, k === 'inrush_A' ? Number(v).toFixed(2) : v]),
      ),
    },
    speaker,
  )
}

/** A station by its name, a master valve or relay by its own. */
export function threadName(
  site: Site,
  of: {
    readonly start?: { readonly station: string } | null
    readonly station?: string | null
    readonly load?: { readonly device: string }
    readonly device?: string
  },
): string {
  const station = of.start?.station ?? of.station
  const record = station ? site.stations[station as keyof typeof site.stations] : undefined
  if (record) return record.name || site.controllers[record.controller]!.terminals[record.terminal]!.tag
  const device = site.devices[(of.load?.device ?? of.device) as keyof typeof site.devices]
  return device?.name || device?.tag || '?'
}
