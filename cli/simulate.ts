import type * as z from 'zod'
import { writeReadingsCsv, type Property } from '../core/formats'
import type { FieldTest, Meter, Reading } from '../core/record'
import { accepted, refused, type Outcome } from '../core/refusal'
import { candidatesOf, huntContextOf } from '../core/hunt'
import { coilsAsRead } from '../core/history'
import { entries, type ControllerId } from '../core/site'
import { chance, fieldOf, readFault, sweepOf } from '../standins'
import type { Arguments } from './flags'
import { knownOf } from './hunt'
import type { simulateOutput } from './output'

/**
 * What a meter would read on a property with these faults in it: a sweep, under power and in the boxes where that is
 * asked for.
 */
export function simulate(
  { site, facts }: Property,
  flags: Arguments['flags'],
  meter: Meter,
  controllers: readonly ControllerId[],
): Outcome<z.infer<typeof simulateOutput>> {
  const faults = (flags.fault ?? []).map((written) => readFault(site, written))
  const wrong = faults.flatMap((f) => (f.ok ? [] : f.refusals))
  if (wrong.length > 0) return refused(...wrong)
  const seed = flags.seed ?? 1
  // The property in the ground is the one that was read before.
  const asRead = new Map(
    controllers.flatMap((c) => {
      const { scene, good } = knownOf({ site, facts }, c, flags)
      return [...coilsAsRead(scene, good, meter)]
    }),
  )
  const field = fieldOf(
    site,
    faults.flatMap((f) => (f.ok ? [f.value] : [])),
    { random: chance(seed), ground_C: flags.ground ?? site.settings.ground_C, known: asRead },
  )
  const tests = controllers.flatMap((controller): FieldTest[] => {
    const sweep = sweepOf(site, controller)
    const stations = sweep.flatMap((t): FieldTest[] =>
      t.kind === 'ohms' &&
      t.from.kind === 'terminal' &&
      entries(site.stations).some(
        ([, s]) => s.controller === controller && t.from.kind === 'terminal' && s.terminal === t.from.terminal,
      )
        ? [
            { kind: 'volts', at: t.from },
            { kind: 'click', at: t.from },
            { kind: 'water', at: t.from },
          ]
        : [],
    )
    const context = flags.boxes ? huntContextOf(site, controller) : null
    return [
      ...sweep,
      ...(flags.power ? [{ kind: 'supply' as const, controller }, ...stations] : []),
      ...(context
        ? candidatesOf(context)
            .filter((c) => c.place !== site.controllers[controller]!.place)
            .map((c) => c.test)
        : []),
    ]
  })
  const readings = tests.map(
    (test) => ({ test, value: field.answer(test, meter), meter, at: '' }) as unknown as Reading,
  )
  return accepted({
    verb: 'simulate',
    seed,
    faults: flags.fault ?? [],
    readings: readings.length,
    csv: writeReadingsCsv(site, readings),
  })
}
