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
function plain(): Site {
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
    .site()
}
const station = (site: Site, terminal: string) => stationAt(site, at(terminal))![0]
function fitted(
  how: 'one' | 'jumpered',
  outputs: 2 | 4,
  others: readonly string[],
): { site: Site; joints: number; caps: number } {
  const site = plain()
  const fit = fitSequencer(site, { host: at('1'), others: others.map((t) => station(site, t)), outputs, how })
  if (!fit.ok) throw new Error(JSON.stringify(fit.refusals))
  const applied = applyBatch(site, fit.value.commands)
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
