import { predict, sceneOf } from '../expect'
import { listCommands, stationRow } from '../plan'
import { COMMON_METER } from '../record'
import { groupsOf } from '../sizing'
import { worstPowered } from '../sizing/load'
import { applyBatch, emptySite, entries, terminalEnd, type Command, type PlaceId, type Site } from '../site'
import { cableLengths, conductorCounts, connectorCounts } from '../takeoff'
import { boxJoints, brokenRules, looseCommands, wayCommandsOf, wiringPlanCommands } from '.'

const after = (site: Site, commands: readonly Command[]): Site => {
  const applied = applyBatch(site, commands)
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  return applied.value.site
}
/** Three valves in B1 at 100 m, one in B2 at 140 m, 18 AWG throughout, joints of exactly 0.03 Ω. */
function plain(): Site {
  const empty = emptySite('Jumpers')
  const listed = listCommands(empty, [
    ...['1', '2', '3'].map((station) =>
      stationRow.parse({ station, name: station, box: 'B1', at_m: 100, coil: '33', gauge: { awg: 18 } }),
    ),
    stationRow.parse({ station: '4', name: '4', box: 'B2', at_m: 140, coil: '33' }),
  ])
  const site = after(empty, listed.ok ? listed.value : [])
  const planned = wiringPlanCommands(site)
  return after(site, planned.ok ? planned.value : [])
}
const chained = (site: Site): Site => {
  const joint = boxJoints(site, 'B1' as PlaceId).find((j) => j.serves === 'common')!
  return after(
    site,
    wayCommandsOf(
      site,
      joint,
      joint.ways.find((w) => w.way === 'chain')!,
    ),
  )
}
const reads = (site: Site, terminal: string): number => {
  const e = predict(
    sceneOf(site),
    { kind: 'ohms', from: terminalEnd('A', terminal), to: terminalEnd('A', 'C') },
    COMMON_METER,
  )
  if (e.kind !== 'ohms') throw new Error(e.kind)
  return e.expected_ohm
}
/** 18 AWG by its defining diameter, Ω/m at 20 °C. */
const WIRE = 0.017241 / ((Math.PI / 4) * (0.127 * 92 ** (18 / 39)) ** 2)

test('a chain of crimps reads what its joints and jumpers add, by hand: each more crimp on the way one joint, each jumper its offcut', () => {
  const [nut, chain] = [plain(), chained(plain())]
  // Lead joint and common joint, twice 100 m of wire, the coil.
  for (const t of ['1', '2', '3']) expect(reads(nut, t)).toBeCloseTo(33 + 200 * WIRE + 2 * 0.03, 9)
  const joint = boxJoints(chain, 'B1' as PlaceId).find((j) => j.serves === 'common')!
  const holder = (of: (e: { from: string; way: string }) => boolean) =>
    joint.holds.findIndex((h) =>
      h.record.ends.some((e) => joint.ends.some((s) => JSON.stringify(s.end) === JSON.stringify(e) && of(s))),
    )
  const links = joint.holds.map((h) =>
    h.record.ends.flatMap((e) => (e.kind === 'core' && chain.cables[e.cable]!.kind === 'jumper' ? [e.cable] : [])),
  )
  /** Jumpers between two connectors of the tree, by walking it. */
  const steps = (from: number, to: number, seen: number[] = []): number =>
    from === to
      ? 0
      : 1 +
        Math.min(
          Infinity,
          ...links.flatMap((l, i) =>
            i !== from && !seen.includes(i) && l.some((j) => links[from]!.includes(j))
              ? [steps(i, to, [...seen, from])]
              : [],
          ),
        )
  const home = holder((s) => s.way === 'arrives')
  const jumper_mm2 =
    'area_mm2' in Object.values(chain.cables).find((c) => c.kind === 'jumper')!.gauge!.value
      ? (Object.values(chain.cables).find((c) => c.kind === 'jumper')!.gauge!.value as { area_mm2: number }).area_mm2
      : NaN
  const offcut = (0.15 * 0.017241) / jumper_mm2
  for (const t of ['1', '2', '3']) {
    const n = steps(
      home,
      holder((s) => s.from === `V${t}`),
    )
    expect([t, reads(chain, t)]).toEqual([t, expect.closeTo(33 + 200 * WIRE + (2 + n) * 0.03 + n * offcut, 9)])
  }
  const n = steps(
    home,
    holder((s) => s.way === 'leaves'),
  )
  expect(reads(chain, '4')).toBeCloseTo(reads(nut, '4') + n * (0.03 + offcut), 9)
  expect(
    Math.max(
      ...['V1', 'V2', 'V3'].map((v) =>
        steps(
          home,
          holder((s) => s.from === v),
        ),
      ),
    ),
  ).toBeGreaterThan(0)
})

test('a jumper is an offcut: it is neither ordered nor sized, but its crimps are counted; it goes when the joint is made in one again', () => {
  const [nut, chain] = [plain(), chained(plain())]
  expect([cableLengths(chain), conductorCounts(chain)]).toEqual([cableLengths(nut), conductorCounts(nut)])
  expect(groupsOf(worstPowered(chain)).groups.filter((g) => chain.cables[g.cable]!.kind === 'jumper')).toEqual([])
  const crimps = (site: Site) =>
    connectorCounts(site)
      .filter((c) => c.connector === 'gel_crimp_3' && c.conductors === 3)
      .reduce((n, c) => n + c.count, 0)
  expect(crimps(chain) - crimps(nut)).toBe(3)
  const joint = boxJoints(chain, 'B1' as PlaceId).find((j) => j.serves === 'common')!
  expect(
    entries(
      after(
        chain,
        wayCommandsOf(
          chain,
          joint,
          joint.ways.find((w) => w.way === 'one')!,
        ),
      ).cables,
    ),
  ).toEqual(entries(nut.cables))
})

test('a chain taken apart end by end, or given one valve more, never leaves a jumper or an empty connector behind', () => {
  const chain = chained(plain())
  const commons = (site: Site) =>
    boxJoints(site, 'B1' as PlaceId).filter(
      (j) =>
        j.serves === 'common' ||
        j.ends.some((s) => s.from.startsWith('V') && s.end.kind === 'port' && s.end.port === 'b'),
    )
  for (const order of [
    [0, 1, 2, 3, 4],
    [4, 3, 2, 1, 0],
    [2, 0, 4, 1, 3],
    [1, 3, 0, 2, 4],
  ]) {
    const ends = boxJoints(chain, 'B1' as PlaceId)
      .find((j) => j.serves === 'common')!
      .ends.map((s) => s.end)
    let site = chain
    for (const i of order) {
      site = after(site, looseCommands(site, [ends[i]!]))
      for (const [id, c] of entries(site.cables))
        if (c.kind === 'jumper')
          expect(
            Object.values(site.splices).filter((s) => s.ends.some((e) => e.kind === 'core' && e.cable === id)),
          ).toHaveLength(2)
      for (const joint of commons(site))
        for (const h of joint.holds)
          expect([
            order,
            i,
            h.record.ends.some((e) => e.kind !== 'core' || site.cables[e.cable]!.kind !== 'jumper') ||
              h.record.ends.length > 1,
          ]).toEqual([order, i, true])
      const again = wiringPlanCommands(site)
      expect(again.ok).toBe(true)
    }
    expect(Object.values(site.cables).filter((c) => c.kind === 'jumper')).toEqual([])
  }
  const more = listCommands(chain, [stationRow.parse({ station: '5', name: '5', box: 'B1', coil: '33' })])
  const grown = after(chain, more.ok ? more.value : [])
  const planned = wiringPlanCommands(grown)
  const site = after(grown, planned.ok ? planned.value : [])
  expect([
    planned.ok,
    brokenRules(site).map((b) => b.code),
    boxJoints(site, 'B1' as PlaceId).find((j) => j.serves === 'common')!.ends.length,
  ]).toEqual([true, [], 6])
  expect(reads(site, '5')).toBeGreaterThan(33)
})
