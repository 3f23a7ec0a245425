import { quarryLake } from '../../demo/quarry-lake'
import { leaveCommands, leftOn, type LikelyFault } from '../hunt'
import { partKey, type Part } from '../record'
import { applyBatch, endKey, entries, setField, type ControllerId, type DeviceId, type Site } from '../site'
import { repairsFor, USUAL_FIGURES } from '.'
import { knownBad } from './known'

const demo = quarryLake()
const A = 'A' as ControllerId
const DAY = '2027-05-01'
const after = (site: Site, commands: Parameters<typeof applyBatch>[1]): Site => {
  const applied = applyBatch(site, commands)
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  return applied.value.site
}
/** The joint that holds a lead of a device, and that end of it. */
const jointAt = (device: string, port: string) => {
  const holds = entries(demo.splices).map(([splice, { ends }]) => ({
    splice,
    end: ends.find((e) => e.kind === 'port' && e.device === device && e.port === port),
  }))
  const { splice, end } = holds.find((h) => h.end)!
  return { where: { kind: 'joint', splice } as Part, at: `${splice}|${endKey(end!)}` }
}
const fault = (cause: LikelyFault['cause'], more: Partial<LikelyFault> = {}): LikelyFault => ({
  ...{ cause, at: null, along: null, ohm: null, states: [] },
  ...more,
})
const stretch = { cable: 'K1', core: 'brown', from: 'B2', to: 'B3' }
const { where: joint, at } = jointAt('V5', 'a')
const LEFT: readonly (readonly [string, Part, LikelyFault])[] = [
  ['a coil that is open', { kind: 'coil', device: 'V3' as DeviceId }, fault('coil_open')],
  ['a joint that is open', joint, fault('open', { at })],
  ['a joint with ohms', joint, fault('series', { at, ohm: 25 })],
  ['a joint that leaks', joint, fault('leak', { at, ohm: 4000 })],
  ['a wire that is cut', { kind: 'run', ...stretch } as Part, fault('open')],
  ['a wire with ohms', { kind: 'run', ...stretch } as Part, fault('series', { ohm: 12 })],
  ['cores that touch', { kind: 'touch', ...stretch, other: 'white' } as Part, fault('touch', { ohm: 0, along: 0.3 })],
]

test.each(LEFT)(
  '%s is left: it counts as found, is known to be bad, and taken off leaves the record as it was',
  (...left) => {
    const [, where, likely] = left
    const known = new Set(knownBad(demo).map((k) => partKey(k.where)))
    const site = after(demo, leaveCommands(demo, where, likely, 'd1', DAY)!)
    expect(leftOn(site, DAY) - leftOn(demo, DAY)).toBe(1)
    const now = knownBad(site).filter((k) => !known.has(partKey(k.where)))
    expect(now.map((k) => partKey(k.where))).toEqual([partKey(where)])
    expect(now[0]!.without).toEqual(demo)
    // Every repair of it that is possible and lasts takes it off the list.
    const lasting = repairsFor(now[0]!.without, A, where, DAY, USUAL_FIGURES, site).filter(
      (o) => o.possible && !o.isTemporary,
    )
    expect(lasting.length).toBeGreaterThan(0)
    for (const option of lasting) {
      const mended = after(site, option.possible ? option.commands : [])
      expect([option.code, ...knownBad(mended).map((k) => partKey(k.where))]).toEqual([option.code, ...known])
    }
  },
)

test('what comes and goes, or is no state of the ground, is not left; two faults of one part are one', () => {
  const coil = { kind: 'coil', device: 'V3' as DeviceId } as const
  expect(leaveCommands(demo, coil, fault('coil_open', { states: ['wet'] }), 'd1', DAY)).toBeNull()
  expect(leaveCommands(demo, coil, fault('coil_part'), 'd1', DAY)).toBeNull()
  expect(leaveCommands(demo, { kind: 'supply', controller: A }, fault('supply_dead'), 'd1', DAY)).toBeNull()
  const open = { state: 'open', since: '2026-01-01', note: '' } as const
  const before = after(demo, [setField('devices', 'V3' as DeviceId, 'condition', open)])
  expect([leftOn(before, DAY), leftOn(before, '2026-01-01') - leftOn(demo, '2026-01-01')]).toEqual([0, 1])
  const both = after(demo, [
    ...leaveCommands(demo, joint, fault('series', { at, ohm: 25 }), 'd1', DAY)!,
    ...leaveCommands(demo, joint, fault('leak', { at, ohm: 4000 }), 'd2', DAY)!,
  ])
  const found = knownBad(both).filter((k) => partKey(k.where) === partKey(joint))
  expect(found).toHaveLength(1)
  expect(found[0]!.without).toEqual(demo)
})
