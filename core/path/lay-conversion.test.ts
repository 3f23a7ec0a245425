import { quarryLake } from '../../demo/quarry-lake'
import {
  applyBatch,
  brokenInvariants,
  endKey,
  netsOf,
  pathOf,
  wiringOf,
  type CableId,
  type ControllerId,
  type CoreId,
  type End,
  type Site,
} from '../site'
import { brokenRules } from '../splice'
import { arrestorsOf, brokenRegister, conversionCommands, genericSystem, layConversion } from '.'

const [A, K1] = ['A' as ControllerId, 'K1' as CableId]
const SYSTEM = genericSystem('switched', 'Plain')
const lay = (site: Site, cable: string, controller = 'A', system = SYSTEM) =>
  layConversion(site, controller as ControllerId, cable as CableId, system)
const why = (made: ReturnType<typeof lay>) => ('code' in made ? made.code : null)
function laid(site: Site) {
  const made = lay(site, 'K1')
  if ('code' in made) throw new Error(made.code)
  const after = applyBatch(site, conversionCommands(site, made))
  if (!after.ok) throw new Error(JSON.stringify(after.refusals))
  return { made, after: after.value.site }
}
/** Minutes by station in the programs of a controller. */
function minutes(site: Site): Record<string, number> {
  const found: Record<string, number> = {}
  for (const program of Object.values(site.programs))
    for (const { terminal, address, minutes: own } of program.controller === A ? program.runs : []) {
      const station = Object.entries(site.stations).find(
        ([, s]) => s.controller === A && s.terminal === terminal && s.address === address,
      )!
      found[station[0]] = (found[station[0]] ?? 0) + own
    }
  return found
}

test('a cable as a path: its valves behind decoders with numbers, the programs with them; the master keeps its wires', () => {
  const demo = quarryLake()
  const { made, after } = laid(demo)
  expect(brokenInvariants(after)).toEqual([])
  const wrong = (site: Site) => brokenRules(site).filter((b) => b.weight === 'wrong').length
  expect([wrong(after) - wrong(demo), made.conversion.decoders]).toEqual([0, made.decoders])
  // No joint that was made is left without a connector.
  const isNew = (id: string) => !Object.hasOwn(demo.splices, id)
  expect(Object.entries(after.splices).filter(([id, s]) => isNew(id) && s.connector === 'unknown')).toEqual([])
  const path = pathOf(after, A)!
  expect(path.decoders).toHaveLength(made.decoders)
  expect(brokenRegister(after, { ...path, system: SYSTEM })).toEqual([])
  const moved = Object.entries(after.stations).filter(([id]) => demo.stations[id as never]!.address === null)
  const onPath = moved.filter(([, s]) => s.controller === A && s.address !== null)
  expect([onPath.length > 10, new Set(onPath.map(([, s]) => s.address)).size]).toEqual([true, onPath.length])
  expect(minutes(after)).toEqual(minutes(demo))
  const [one, two] = made.conversion.legs
  const kept = Object.keys(demo.cables[K1]!.cores).filter((c) => ![...one, ...two].includes(c as CoreId))
  const masters = Object.values(demo.splices).flatMap((s) =>
    s.ends.some((e) => e.kind === 'port' && e.device === 'MV')
      ? s.ends.flatMap((e) => (e.kind === 'core' && e.cable === K1 ? [e.core] : []))
      : [],
  )
  expect(new Set(kept)).toEqual(new Set(masters))
  // No box lies as near to the cabinet as the first should stand: nothing else of the rules is left.
  const { breaches, impossible, more } = arrestorsOf(after, { ...path, system: SYSTEM })
  expect([breaches, more]).toEqual([impossible, []])
})

test('every core of a leg is joined in every box, and what is known to be bad in none', () => {
  const demo = quarryLake()
  const { cores } = demo.cables[K1]!
  const open = { state: 'open' as const, since: null, note: 'edger' }
  const broken = { ...cores, brown: { ...cores['brown' as CoreId]!, conditions: { B2: open } } }
  const site = { ...demo, cables: { ...demo.cables, K1: { ...demo.cables[K1]!, cores: broken } } } as Site
  const { made, after } = laid(site)
  const boxes = after.cables[K1]!.stops.slice(1)
  const wiring = wiringOf(after)
  const nets = netsOf(wiring)
  const held = new Set(Object.values(after.splices).flatMap((s) => (s.connector === 'cap' ? [] : s.ends.map(endKey))))
  made.conversion.legs.forEach((leg) => {
    for (const stop of boxes) {
      // In one joint, of one connector or of several with jumpers between them: what is in it is one net.
      const ends = (side: 'arrives' | 'leaves') =>
        leg.map((core) => ({ kind: 'core', cable: K1, core, stop: stop.id, side }))
      const here = [...ends('arrives'), ...(stop === boxes.at(-1) ? [] : ends('leaves'))]
      expect(new Set(here.map((e) => nets.of(wiring.pointOf(e as End)))).size).toBe(1)
      expect(here.every((e) => held.has(endKey(e as End)))).toBe(true)
    }
  })
  const ofBrown = Object.values(after.splices).filter((s) =>
    s.ends.some((e) => e.kind === 'core' && e.core === 'brown'),
  )
  expect(
    ofBrown.filter((s) => s.ends.some((e) => e.kind === 'core' && e.cable === K1)).map((s) => s.connector),
  ).toEqual(expect.arrayContaining(['cap']))
  expect(JSON.stringify(after.cables[K1]!.cores['brown' as CoreId])).toContain('edger')
})

test('what cannot be a path says why', () => {
  const demo = quarryLake()
  expect(why(lay(demo, 'K3', 'S'))).toBe('behind_sequencer')
  expect(why(lay(demo, 'L14'))).toBe('too_few_cores')
  expect(why(lay(demo, 'K3'))).toBe('not_from_here')
  expect(why(lay(demo, 'K1', 'A', genericSystem('always_live', 'Other')))).toBe('twisted_only')
  const short = { ...SYSTEM, addresses: { ...SYSTEM.addresses, from: 1, to: 3 } }
  expect(why(lay(demo, 'K1', 'A', short))).toBe('no_number_left')
  const kinds = Object.fromEntries(
    Object.entries(demo.coilKinds).map(([id, k]) => [id, { ...k, current: 'dc_latching' as const }]),
  )
  expect(why(lay({ ...demo, coilKinds: kinds } as Site, 'K1'))).toBe('dc_coil')
})
