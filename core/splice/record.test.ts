import fc from 'fast-check'
import { quarryLake } from '../../demo/quarry-lake'
import {
  applyBatch,
  endKey,
  entries,
  undoCommands,
  type CableId,
  type Command,
  type CoreId,
  type End,
  type PlaceId,
  type Site,
  type StopId,
} from '../site'
import {
  boxJoints,
  brokenRules,
  censusOf,
  colourCommands,
  connectorsForVan,
  coreCountCommands,
  cutCommands,
  endsAt,
  joinCommands,
  leadColourCommands,
  limitsOf,
  looseCommands,
  newTroubles,
  newValveCommands,
  planBoxCommands,
  splitOf,
  STRIP_mm,
  tickCommands,
  wayCommandsOf,
} from '.'
import { holdPointOf, misfitOf } from './connector'

const demo = quarryLake()
const after = (site: Site, commands: readonly Command[]): Site => {
  const applied = applyBatch(site, commands)
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  return applied.value.site
}
const at = (tag: string) => tag as PlaceId
const core = (name: string, stop: string, side: 'arrives' | 'leaves' = 'arrives') =>
  ({ kind: 'core', cable: 'K1', core: name, stop, side }) as End
const port = (device: string, p: string) => ({ kind: 'port', device, port: p }) as End
const value = <T>(outcome: { ok: true; value: T } | { ok: false; refusals: unknown }): T => {
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.refusals))
  return outcome.value
}

test('whatever is recorded in a box, in any order, leaves a property whose every end is in one joint at most, and can be taken back', () => {
  const act = fc.record({
    kind: fc.constantFrom('join', 'loose', 'cut', 'heal', 'colour', 'valve', 'plan', 'way', 'tick'),
    place: fc.constantFrom(...entries(demo.places).map(([p]) => p)),
    a: fc.nat(40),
    b: fc.nat(40),
    c: fc.nat(40),
    connector: fc.constantFrom('unknown', 'gel_crimp_3', 'nut_and_gel_tube', 'bare_twist'),
  })
  fc.assert(
    fc.property(fc.array(act, { minLength: 1, maxLength: 12 }), (acts) => {
      let site = demo
      for (const { kind, place, a, b, c, connector } of acts) {
        const ends = endsAt(site, place).filter((e) => e.seen.way !== 'terminal')
        const pick = (n: number) => ends[n % Math.max(1, ends.length)]?.seen.end
        const census = censusOf(site, place)
        const one = census[a % Math.max(1, census.length)]
        const stop = one && site.cables[one.cable]!.stops.find((s) => s.place === place)!.id
        const joints = boxJoints(site, place)
        const joint = joints[a % Math.max(1, joints.length)]
        const chosen = [
          ...new Map(
            [a, b, c]
              .map(pick)
              .filter((e) => e !== undefined)
              .map((e) => [endKey(e), e]),
          ).values(),
        ]
        const outcome =
          kind === 'join' && chosen.length > 0
            ? joinCommands(site, place, chosen, connector as never)
            : kind === 'plan'
              ? planBoxCommands(site, place)
              : null
        const commands = outcome
          ? outcome.ok
            ? outcome.value
            : []
          : kind === 'loose'
            ? looseCommands(site, chosen)
            : (kind === 'cut' || kind === 'heal') && one && stop
              ? cutCommands(site, one.cable, one.core, stop, kind === 'cut')
              : kind === 'colour' && one && stop
                ? colourCommands(
                    site,
                    one.cable,
                    one.core,
                    b % 2 ? stop : null,
                    ['red', 'Green ', ''][c % 3]!,
                    '2026-01-01',
                  )
                : kind === 'valve'
                  ? newValveCommands(site, place)
                  : kind === 'way' && joint && joint.ways.length > 0
                    ? wayCommandsOf(site, joint, joint.ways[b % joint.ways.length]!)
                    : kind === 'tick' && joint
                      ? tickCommands(site, joint.holds[0]!.splice, 'sealed', c % 2 === 0, '2026-01-01')
                      : []
        const applied = applyBatch(site, commands)
        if (!applied.ok) throw new Error(`${kind} in ${place}: ${JSON.stringify(applied.refusals)}`)
        const back = undoCommands(applied.value.site, applied.value.writes)
        expect(after(applied.value.site, value(back))).toEqual(site)
        site = applied.value.site
      }
      for (const [place] of entries(site.places))
        for (const joint of boxJoints(site, place)) {
          // No jumper is left without a box, and no way loses an end.
          for (const way of joint.ways)
            expect(way.plan.made.flatMap((m) => m.holds).sort()).toEqual(joint.ends.map((s) => endKey(s.end)).sort())
        }
    }),
    { numRuns: 150, seed: 11 },
  )
})

test('a join is refused where it cannot be: over the connector’s limits, both leads of one coil; one end alone gets a cap', () => {
  expect(
    joinCommands(
      demo,
      at('B2'),
      [core('red', 'B2'), core('yellow', 'B2'), core('blue', 'B2'), port('V1', 'a')],
      'gel_crimp_3',
    ),
  ).toMatchObject({ ok: false, refusals: [{ code: 'connector_too_many', params: { is: 4, limit: 3 } }] })
  expect(joinCommands(demo, at('B2'), [port('V1', 'a'), port('V1', 'b')], 'unknown')).toMatchObject({
    ok: false,
    refusals: [{ code: 'both_leads', params: { valve: 'V1' } }],
  })
  const capped = after(demo, value(joinCommands(demo, at('B2'), [core('red', 'B2')], 'gel_nut')))
  expect(endsAt(capped, at('B2')).find((e) => endKey(e.seen.end) === endKey(core('red', 'B2')))).toMatchObject({
    capped: true,
  })
  // The valve's own lead was left alone in its nut: that is a cap now.
  expect(Object.values(capped.splices).filter((s) => s.ends.length === 1 && s.connector !== 'cap')).toEqual([])
})

test('what a joint would bring about is told before it is made, and nothing that was there already', () => {
  const wrong = value(joinCommands(demo, at('B2'), [core('red', 'B2'), core('white', 'B2')], 'unknown'))
  expect(newTroubles(demo, wrong).map((r) => r.code)).toContain('lead_on_common')
  expect(
    newTroubles(demo, value(joinCommands(demo, at('B2'), [core('yellow', 'B2'), port('V1', 'a')], 'gel_nut'))).map(
      (r) => `${r.section}.${r.code}`,
    ),
  ).toContain('finding.valve_elsewhere')
  const same = value(joinCommands(demo, at('B2'), [core('red', 'B2'), port('V1', 'a')], 'gel_nut'))
  expect(newTroubles(demo, same)).toEqual([])
  expect(
    newTroubles(demo, value(joinCommands(demo, at('B2'), [core('red', 'B2'), port('V1', 'a')], 'bare_twist'))).map(
      (r) => r.code,
    ),
  ).toEqual(['bare_in_box'])
})

test('cores as they are found: cut and healed again, coloured otherwise at one end, counted, a filler beside them', () => {
  const cut = after(demo, cutCommands(demo, 'K1' as CableId, 'violet' as CoreId, 'B2' as StopId, true))
  expect(censusOf(cut, at('B2')).find((c) => c.core === 'violet')).toMatchObject({ here: 'cut', loose: [] })
  expect(after(cut, cutCommands(cut, 'K1' as CableId, 'violet' as CoreId, 'B2' as StopId, false))).toEqual(demo)
  const unlike = after(
    demo,
    colourCommands(demo, 'K1' as CableId, 'grey' as CoreId, 'B4' as StopId, 'blue', '2026-01-01'),
  )
  expect(
    brokenRules(unlike)
      .filter((b) => b.weight === 'wrong')
      .map((b) => [b.code, b.place, b.params.other]),
  ).toEqual([['unlike_ends', 'B4', 'blue']])
  expect(colourCommands(unlike, 'K1' as CableId, 'grey' as CoreId, 'B4' as StopId, 'Grey', '2026-01-01')).toHaveLength(
    1,
  )
  expect(colourCommands(demo, 'K1' as CableId, 'grey' as CoreId, 'B4' as StopId, 'grey', '2026-01-01')).toEqual([])
  const more = after(demo, value(coreCountCommands(demo, 'K3' as CableId, 9)))
  expect(censusOf(more, at('S')).filter((c) => c.use === 'unknown')).toHaveLength(2)
  expect(coreCountCommands(demo, 'K3' as CableId, 3)).toMatchObject({
    ok: false,
    refusals: [{ code: 'not_within', params: { low: 7 } }],
  })
  const red = after(demo, leadColourCommands(demo, 'V3' as never, 'a', ' red '))
  const unlikeLeads = after(red, [
    ...leadColourCommands(red, 'V3' as never, 'b', 'black'),
    { do: 'set', in: 'devices', id: 'V3', field: 'coilKind', value: null },
  ])
  expect(
    brokenRules(unlikeLeads)
      .filter((b) => b.code === 'leads_unlike')
      .map((b) => [b.params.valve, b.params.a, b.params.b]),
  ).toEqual([['V3', 'red', 'black']])
  expect(leadColourCommands(red, 'V3' as never, 'a', '')).toMatchObject([{ value: {} }])
})

test('every kind of connector: what it strips, when it is tried, and the first limit that it breaks', () => {
  const nut = limitsOf(demo.settings, 'nut_and_gel_tube')!
  const code = (...areas: number[]) => misfitOf(nut, areas)?.code ?? 'fits'
  expect([
    code(1),
    code(1, 1),
    code(1, 1, 1, 1, 1),
    code(1, 1, 1, 1, 1, 1),
    code(1, 6),
    code(0.2, 1),
    code(4, 4, 4),
  ]).toEqual(['too_few', 'fits', 'fits', 'too_many', 'too_thick', 'too_thin', 'too_full'])
  expect([STRIP_mm.gel_crimp_3, STRIP_mm.gel_nut, STRIP_mm.terminal]).toEqual([null, 19, 12])
  expect(
    (['gel_crimp_3', 'nut_and_gel_tube', 'gel_nut', 'solder_heatshrink', 'cap'] as const).map(holdPointOf),
  ).toEqual(['before_bundling', 'before_sealing', 'before_bundling', 'before_sealing', 'none'])
  const own = {
    ...demo.settings,
    wiring: {
      ...demo.settings.wiring,
      connectors: [
        { kind: 'gel_crimp_3' as const, least: 2, most: 2, thinnest_mm2: 0.5, thickest_mm2: 1, together_mm2: 2 },
      ],
    },
  }
  expect([limitsOf(own, 'gel_crimp_3')!.most, limitsOf(own, 'dry_nut')]).toEqual([2, null])
  // Two-port crimps alone cannot branch: three conductors have no plan, and the box says so.
  const bare = after({ ...demo, settings: own }, [
    ...boxJoints(demo, at('B7')).flatMap((j) =>
      j.holds.map((h): Command => ({ do: 'set', in: 'splices', id: h.splice, field: 'connector', value: 'unknown' })),
    ),
  ])
  expect(planBoxCommands(bare, at('B7'))).toMatchObject({
    ok: false,
    refusals: [{ code: 'no_connector_holds', params: { count: 2, thickest_mm2: 1.5, at: 'B7' } }],
  })
})

test('the van gets what is still to be made, and nothing for joints that somebody has made', () => {
  expect(connectorsForVan(demo, at('B7'))).toEqual([
    { kind: 'cap', count: 15 },
    { kind: 'gel_nut', count: 1 },
    { kind: 'nut_and_gel_tube', count: 1 },
  ])
  expect(connectorsForVan(demo, at('B3'))).toEqual([{ kind: 'cap', count: 3 }])
  expect(connectorsForVan(demo, at('B3'), at('B7'))[0]).toEqual({ kind: 'cap', count: 18 })
  expect(
    splitOf(
      demo,
      boxJoints(demo, at('B7')).find((j) => j.serves === 'common')!,
    ),
  ).toBeNull()
})
