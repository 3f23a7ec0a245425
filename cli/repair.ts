import type * as z from 'zod'
import { readPricesCsv, type Property } from '../core/formats'
import { controllerFor } from '../core/procedure'
import { figuresBy, seenAt } from '../core/quote'
import { targetOfPart } from '../core/record'
import { accepted, refusal, refused, type Outcome } from '../core/refusal'
import { nearby, placesOf, readFinding, repairsFor } from '../core/repair'
import { getOrThrow } from '../core/site'
import type { Speaker } from '../words'
import { sayPart } from '../words/part'
import { sayNearby, sayRepair, sayRisk, sayWhyNot } from '../words/repair'
import type { Arguments } from './flags'
import type { repairOutput } from './output'

type Out = z.infer<typeof repairOutput>
/** Where no day is told, repairs are dated so. */
const SOME_DAY = '2027-01-01'

/**
 * All that can be done about what was found, the cheapest first by a company’s prices or by usual figures; what cannot,
 * and why; what else is due there.
 */
export function repairOf(
  { site, facts }: Property,
  finding: string,
  prices: string | null,
  flags: Arguments['flags'],
  speaker: Speaker,
): Outcome<Out> {
  const where = readFinding(site, finding)
  if (!where.ok) return where
  const controller =
    'controller' in where.value ? where.value.controller : controllerFor(site, targetOfPart(where.value))
  if (controller === null) return refused(refusal('no_such_record', ['controllers'], { id: '' }))
  const today = flags.from ?? SOME_DAY
  const list = prices === null ? accepted(null) : readPricesCsv(prices)
  if (!list.ok) return list
  const figures = figuresBy(list.value)
  const options = repairsFor(site, controller, where.value, today, figures)
  const places = placesOf(site, where.value, options)
  const joint = where.value.kind === 'joint' ? getOrThrow(site.splices, where.value.splice) : null
  return accepted({
    verb: 'repair',
    property: site.about.name,
    finding: sayPart(where.value, site, speaker),
    options: options.map((o) =>
      o.possible
        ? {
            code: o.code,
            possible: true as const,
            says: sayRepair(o.code, speaker),
            minutes: o.minutes,
            material: o.material_cents / 100,
            cost: o.cents / 100,
            dig_m: o.dig_m,
            risk: sayRisk(o.risk, speaker),
            temporary: o.isTemporary,
            commands: [...o.commands],
          }
        : {
            code: o.code,
            possible: false as const,
            says: sayRepair(o.code, speaker),
            why: { code: o.why.code, says: sayWhyNot(o.why, speaker) },
          },
    ),
    nearby: nearby(site, places, joint?.made?.value ?? null, today, figures, seenAt(site, facts)).map((n) => ({
      code: n.rule ?? n.code,
      says: sayNearby(n, speaker),
      minutes: n.minutes,
      saves_min: n.saves_min,
    })),
  })
}

/** The same as lines for a person. */
export const repairLines = ({ finding, options, nearby: also }: Out): string[] => [
  `${finding}:`,
  ...options.map((o) =>
    o.possible
      ? `  ${o.says}: ${o.minutes} min, material ${o.material.toFixed(2)}, in all ${o.cost.toFixed(2)}. ${o.risk}`
      : `  not: ${o.says}. ${o.why.says}`,
  ),
  ...(also.length > 0
    ? ['  while it is open:', ...also.map((n) => `    ${n.says} (${n.minutes} min, saves ${n.saves_min})`)]
    : []),
]
