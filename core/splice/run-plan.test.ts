import { listCommands, runsOf, stationRow } from '../plan'
import { applyBatch, emptySite, getOrThrow, type Command, type ControllerId, type Site } from '../site'
import { coloursInOrder, planRun, wiringPlanCommands } from '.'

const after = (site: Site, commands: readonly Command[]): Site => {
  const applied = applyBatch(site, commands)
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  return applied.value.site
}
/** So many stations, the last box so far out, planned through with these settings. */
function run(
  count: number,
  far_m: number,
  wiring: Partial<Site['settings']['wiring']> = {},
  kind: 'multicore' | 'single' = 'multicore',
): { site: Site; plan: ReturnType<typeof planRun> } {
  const empty = emptySite('Run')
  const settings = { ...empty.settings, wiring: { ...empty.settings.wiring, ...wiring } }
  const bare = { ...empty, settings }
  const listed = listCommands(
    bare,
    Array.from({ length: count }, (_, i) =>
      stationRow.parse({
        station: String(i + 1),
        name: `Bed ${i + 1}`,
        box: `B${1 + (i >> 2)}`,
        at_m: (far_m * (1 + (i >> 2))) / (1 + ((count - 1) >> 2)),
        coil: '33',
        kind,
      }),
    ),
  )
  if (!listed.ok) throw new Error(JSON.stringify(listed.refusals))
  const first = after(bare, listed.value)
  const commands = wiringPlanCommands(first)
  if (!commands.ok) throw new Error(JSON.stringify(commands.refusals))
  const site = after(first, commands.value)
  return { site, plan: planRun(site, runsOf(site, 'A' as ControllerId)[0]!) }
}

test('cores needed: stations, common, and spares by the least or by the share; the smallest jacket that holds them', () => {
  const counted = (count: number, wiring = {}) => {
    const { needs, has, jacket } = run(count, 90, wiring).plan
    return [needs.stations, needs.commons, needs.spares, needs.cores, has, jacket]
  }
  expect(counted(4)).toEqual([4, 1, 2, 7, 7, 7])
  expect(counted(12)).toEqual([12, 1, 3, 16, 16, 16])
  expect(counted(12, { spares_ratio: 0.5 })).toEqual([12, 1, 6, 19, 19, 19])
  expect(counted(4, { sparesLeast: 0, spares_ratio: 0 })).toEqual([4, 1, 0, 5, 5, 5])
  expect(counted(4, { jackets: [6, 8] })).toEqual([4, 1, 2, 7, 7, 8])
  expect(run(4, 90, {}, 'single').plan).toMatchObject({ needs: { stations: 4, spares: 2 }, has: 1, cores: [] })
})

test('which cable: a jacket for short runs of few stations, singles for far, for many, or where no jacket has the cores; the figures are the property’s', () => {
  const advice = (count: number, far_m: number, wiring = {}) => {
    const { advised } = run(count, far_m, wiring).plan
    return `${advised.kind} ${advised.because}`
  }
  expect([advice(6, 100), advice(6, 151), advice(13, 100), advice(11, 100, { jackets: [2, 3, 5] })]).toEqual([
    'multicore short_and_few',
    'single far',
    'single many',
    'single no_jacket',
  ])
  expect([advice(6, 300, { multicoreFarthest_m: 400 }), advice(20, 100, { multicoreMost: 30 })]).toEqual([
    'multicore short_and_few',
    'multicore short_and_few',
  ])
})

test('colours follow the owner’s order, the common’s left out, a stripe on the second round; leads are cut in their own box only', () => {
  const { site, plan } = run(13, 90, { colours: ['Black', 'white', 'red'], multicoreMost: 40 })
  expect(plan.cores.slice(0, 6).map((c) => [c.terminal, c.colour])).toEqual([
    ['A:C', 'white'],
    ['A:1', 'Black'],
    ['A:2', 'red'],
    ['A:3', 'Black/white'],
    ['A:4', 'red/white'],
    ['A:5', 'Black 3'],
  ])
  expect(new Set(plan.cores.map((c) => c.colour)).size).toBe(plan.cores.length)
  const tag = (place: string) => getOrThrow(site.places, place).tag
  expect(
    plan.cores
      .filter((c) => ['A:1', 'A:5', 'A:13'].includes(c.terminal ?? ''))
      .map((c) => [c.cutAt.map(tag), c.through.map(tag)]),
  ).toEqual([
    [['B1'], []],
    [['B2'], ['B1']],
    [[], ['B1', 'B2', 'B3']],
  ])
  expect(plan.cores[0]!.cutAt.map(tag)).toEqual(['B1', 'B2', 'B3'])
  expect(coloursInOrder(site, 5)).toEqual(['Black', 'red', 'Black/white', 'red/white', 'Black 3'])
})
