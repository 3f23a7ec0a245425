import { sequencersOf, fitSequencer } from '.'
import {
  Draft,
  applyBatch,
  brokenInvariants,
  entries,
  stationAt,
  type ControllerId,
  type Site,
  type StationId,
  type TerminalId,
} from '../site'

const A = 'A' as ControllerId
const at = (terminal: string) => ({ controller: A, terminal: terminal as TerminalId })

/** Three valves in one box, one in another, each on its own core. */
const plain = (): Site => drafted().site()
/** With a program, and with a valve that nothing is joined to yet. */
const programmed = (): Site =>
  drafted()
    .valve('V6', 'B1', 'coil')
    .station('A:6', 'Zone 6', ['V6'])
    .program(
      'A',
      'A',
      [
        ['1', 10],
        ['2', 12],
        ['3', 5],
      ],
      {},
    )
    .site()
function drafted(): Draft {
  const draft = new Draft('Plain')
    .coilKind('coil', 33)
    .place('A', 'cabinet')
    .place('B1')
    .place('B2')
    .controller('A', 'A', 6)
    .cable('K', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B1', 60],
        ['B2', 90],
      ],
      cores: ['white', 'red', 'blue', 'green', 'grey'],
    })
  for (const [i, colour] of ['red', 'blue', 'green'].entries())
    draft
      .valve(`V${i + 1}`, 'B1', 'coil')
      .station(`A:${i + 1}`, `Zone ${i + 1}`, [`V${i + 1}`])
      .join('A', [`A:${i + 1}`, `K.${colour}>`])
      .join('B1', [`K.${colour}<`, `V${i + 1}.a`])
  return draft
    .valve('V4', 'B2', 'coil')
    .station('A:4', 'Zone 4', ['V4'])
    .join('A', ['A:C', 'K.white>'])
    .join('A', ['A:4', 'K.grey>'])
    .join('B1', ['K.white<', 'V1.b', 'V2.b', 'V3.b', 'K.white>'])
    .join('B2', ['K.grey<', 'V4.a'])
    .join('B2', ['K.white<', 'V4.b'])
}
const station = (site: Site, terminal: string) => stationAt(site, at(terminal))![0]
function fitted(
  how: 'one' | 'jumpered',
  outputs: 2 | 4,
  others: readonly string[],
  { site: before = plain(), isSetApart = false } = {},
): { site: Site; joints: number; caps: number } {
  const wanted = { host: at('1'), others: others.map((t) => station(before, t)), outputs, how, isSetApart }
  const fit = fitSequencer(before, wanted)
  if (!fit.ok) throw new Error(JSON.stringify(fit.refusals))
  const applied = applyBatch(before, fit.value.commands)
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  expect(brokenInvariants(applied.value.site)).toEqual([])
  return { site: applied.value.site, joints: fit.value.joints, caps: fit.value.caps }
}

test('one terminal: the lead feeds the sequencer alone, each valve has its output, what is unused is capped', () => {
  const { site, joints, caps } = fitted('one', 4, ['2', '3'])
  const [q] = sequencersOf(site, A)
  expect([q!.fedBy, q!.outputs]).toEqual([['1'], [['V1'], ['V2'], ['V3'], []]])
  expect(entries(site.stations).map(([id, s]) => [id, s.valves])).toEqual([
    ['A-1', ['V1', 'V2', 'V3']],
    ['A-4', ['V4']],
  ])
  // In, three outputs, the common; one output and the two leads that nothing hangs on any more.
  expect([joints, caps]).toEqual([5, 3])
})

test('jumpered: each keeps its terminal, the leads that are no longer needed are off it', () => {
  const { site } = fitted('jumpered', 2, ['2'])
  const [q] = sequencersOf(site, A)
  expect([q!.fedBy, q!.outputs]).toEqual([
    ['1', '2'],
    [['V1'], ['V2']],
  ])
  expect(Object.keys(site.stations)).toHaveLength(4)
  const landing = Object.values(site.splices).find((s) =>
    s.ends.some((e) => e.kind === 'terminal' && e.terminal === '2'),
  )!
  expect(landing.ends.flatMap((e) => (e.kind === 'core' ? [e.core] : []))).toEqual(['red'])
})

test('set apart, a screw with a live one between is taken, and the programs follow; one terminal takes their runs', () => {
  const before = programmed()
  const apart = fitted('jumpered', 2, ['2'], { site: before, isSetApart: true })
  const runs = (site: Site) => Object.values(site.programs)[0]!.runs.map((r) => [r.terminal, r.minutes])
  expect(sequencersOf(apart.site, A)[0]!.fedBy).toEqual(['1', '5'])
  expect(station(apart.site, '5')).toBe('A-2')
  expect(runs(apart.site)).toEqual([
    ['1', 10],
    ['5', 12],
    ['3', 5],
  ])
  expect(runs(fitted('one', 2, ['2'], { site: before }).site)).toEqual([
    ['1', 10],
    ['1', 12],
    ['3', 5],
  ])
  const crowded = fitSequencer(before, {
    ...{ host: at('1'), others: ['2', '3'].map((t) => station(before, t)), outputs: 4, how: 'jumpered' },
    isSetApart: true,
  })
  // Screw 5 alone is free.
  expect(crowded.ok ? [] : crowded.refusals.map((r) => r.code)).toEqual(['none_apart'])
})

test('a valve that was only just set comes on with its common', () => {
  const before = programmed()
  const added = fitted('jumpered', 4, ['2', '6'], { site: before }).site
  const [q] = sequencersOf(added, A)
  expect([q!.fedBy, q!.outputs]).toEqual([
    ['1', '2', '6'],
    [['V1'], ['V2'], ['V6'], []],
  ])
  const common = Object.values(added.splices).find((s) =>
    s.ends.some((e) => e.kind === 'port' && e.device === 'V6' && e.port === 'b'),
  )!
  expect(common.ends.some((e) => e.kind === 'core' && e.core === 'white')).toBe(true)
})

test('what cannot be fitted is said: too many, another box, nothing to feed', () => {
  const site = plain()
  const told = (others: readonly StationId[], host = at('1')) => {
    const fit = fitSequencer(site, { host, others, outputs: 2, how: 'one' })
    return fit.ok ? null : fit.refusals.map((r) => r.code)
  }
  expect(told([station(site, '2'), station(site, '3')])).toEqual(['sequencer_holds'])
  expect(told([station(site, '4')])).toEqual(['sequencer_elsewhere'])
  expect(told([station(site, '2')], at('6'))).toEqual(['no_such_station'])
})
