import { randomSite } from '../../../tests/random-site'
import { COMMON_METER, type FieldTest } from '../../record'
import { terminalEnd, type ControllerId } from '../../site'
import type { Observation } from '../beliefs'
import { catalogueOf, type FaultHypothesis } from '../catalogue'
import { huntContextOf } from '../context'
import { predictorOf } from '../predict'
import type { Standing } from './classes'
import { fitOf } from './likelihood'
import { Roughly } from './roughly'
import { threadsWith } from './scope'

const A = 'A' as ControllerId
const SUPPLY_V = { read: null, nominal: 27 }
/**
 * What lies so far below a reading that fits is ruled out by it, nats; two places that differ by less are about one.
 */
const [RULED_OUT_NATS, SAME_NATS] = [-6, 1]

/** A random property with every terminal read, to the common and to earth, as if nothing were wrong. */
function readSound(seed: number) {
  const context = huntContextOf(randomSite(seed, { loops: false }).site, A)!
  const catalogue = catalogueOf(context)
  const predictor = predictorOf(context, catalogue, COMMON_METER)
  const coils = () => ({ mean: 0, sd: 0.035 })
  const threads = threadsWith(context, catalogue.faults)
  const common = terminalEnd(A, context.common)
  const place = context.site.controllers[A]!.place
  const readings = context.terminals.flatMap((t): Observation[] => {
    const from = terminalEnd(A, t)
    const toCommon: FieldTest = { kind: 'ohms', from, to: common }
    const base = predictor.base(toCommon)
    if (base?.kind !== 'ohms') return []
    return [
      { test: toCommon, value: { kind: 'ohm', ohm: base.mean } },
      { test: { kind: 'ohms', from, to: { kind: 'earth', place } }, value: { kind: 'open' } },
    ]
  })
  const logOf = ({ test, value }: Observation, v: FaultHypothesis | null): number => {
    const seen = v ? predictor.under(test, [v]) : predictor.base(test)
    return fitOf([{ value, seen, slots: [] }], SUPPLY_V, coils).log
  }
  return {
    context,
    catalogue,
    predictor,
    threads,
    readings,
    logOf,
    roughly: new Roughly(context, { catalogue, predictor, coils, threads }),
  }
}
const stoodFor = (standing: Standing, cells: readonly FaultHypothesis[]) => cells.filter((v) => standing[v.index] !== v)

test('where threads read sound, a place says of touches and leaks what every other place does', () => {
  let compared = 0
  for (let seed = 1; seed <= 6; seed++) {
    const { catalogue, readings, logOf, roughly } = readSound(seed)
    const standing = roughly.standing(readings, SUPPLY_V)
    for (const v of stoodFor(standing, catalogue.variants))
      for (const reading of readings) {
        const sound = logOf(reading, null)
        const [itself, other] = [logOf(reading, v) - sound, logOf(reading, standing[v.index]!) - sound]
        if (itself < RULED_OUT_NATS && other < RULED_OUT_NATS) continue
        compared++
        expect(Math.abs(itself - other)).toBeLessThan(SAME_NATS)
      }
  }
  expect(compared).toBeGreaterThan(1000)
})

test('a thread that reads otherwise has each place of what lies in it looked at by itself', () => {
  const { catalogue, threads, readings, roughly } = readSound(1)
  const quiet = roughly.standing(readings, SUPPLY_V)
  expect(roughly.standing([...readings], SUPPLY_V)).toBe(quiet)
  const [first, ...others] = readings as [Observation, ...Observation[]]
  const terminal = (first.test as Extract<FieldTest, { kind: 'ohms' }>).from
  const loud = roughly.standing([{ ...first, value: { kind: 'open' } }, ...others], SUPPLY_V)
  const inThread = catalogue.variants.filter(
    (v) => terminal.kind === 'terminal' && threads[v.fault]?.includes(terminal.terminal),
  )
  expect(stoodFor(quiet, inThread).length).toBeGreaterThan(10)
  expect(stoodFor(loud, inThread)).toEqual([])
  expect(stoodFor(loud, catalogue.variants).length).toBeGreaterThan(10)
})
