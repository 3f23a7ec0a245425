import { quarryLake } from '../../demo/quarry-lake'
import { randomSite } from '../../tests/random-site'
import { Draft } from './draft'
import {
  commonOf,
  hangingOn,
  routeTo,
  terminalEnd,
  walkFrom,
  wiringOf,
  type ControllerId,
  type TerminalId,
} from './index'

const A = 'A' as ControllerId
const hang = (site: ReturnType<typeof quarryLake>, controller = A) => hangingOn(site, wiringOf(site), controller)

test('what hangs on each terminal of the demo: its own valve, the relay beside the master valve, nothing loose', () => {
  const hanging = hang(quarryLake())
  expect(hanging.get('MV' as TerminalId)!.coils).toEqual(['MV', 'PR'])
  for (let n = 1; n <= 18; n++)
    expect(hanging.get(String(n) as TerminalId)).toMatchObject({
      coils: [`V${n}`],
      loose: [],
      switchedBy: [],
      landed: true,
    })
  const boathouse = hang(quarryLake(), 'S' as ControllerId)
  expect([boathouse.get('5' as TerminalId)!.switchedBy, boathouse.get('6' as TerminalId)!.switchedBy]).toEqual([
    ['Q1'],
    ['Q1'],
  ])
})

test('an end whose partner is not on record is loose; a cap is not; a bare terminal is not landed', () => {
  const draft = new Draft('loose')
    .place('A', 'cabinet')
    .place('B')
    .controller('A', 'A', 3)
    .cable('K', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B', 50],
      ],
      cores: ['red', 'blue', 'white'],
    })
    .join('A', ['A:1', 'K.red>'])
    .join('A', ['A:2', 'K.blue>'])
    .join('B', ['K.blue<'])
    .join('A', ['A:C', 'K.white>'])
  const hanging = hang(draft.site())
  const at = (tag: string) => hanging.get(tag as TerminalId)!
  expect(at('1').loose).toEqual([{ kind: 'core', cable: 'K', core: 'red', stop: 'B', side: 'arrives' }])
  expect([at('2').loose, at('2').landed, at('3').landed]).toEqual([[], true, false])
})

test('made-up properties: each lead holds its own valves, walks reach every one of them, and routes lead there without a break', () => {
  for (let seed = 1; seed <= 40; seed++) {
    const { site, stations } = randomSite(seed)
    const wiring = wiringOf(site)
    const hanging = hangingOn(site, wiring, A)
    const home = walkFrom(site, wiring, A, commonOf(site, A)!)
    for (const tag of stations) {
      const { coils } = hanging.get(tag as TerminalId)!
      expect(coils.map((c) => c.replace(/\D/g, ''))).toEqual(coils.map(() => tag))
      const walk = walkFrom(site, wiring, A, tag as TerminalId)
      for (const device of coils) {
        const sides = ['a', 'b'].map((port) => wiring.pointOf({ kind: 'port', device, port }))
        expect([walk, home].map((w) => sides.filter((p) => w.distance_m.has(p)).length)).toEqual([1, 1])
        const route = routeTo(
          walk,
          sides.find((p) => walk.distance_m.has(p))!,
        )
        let point = wiring.pointOf(terminalEnd('A', tag))
        for (const run of route) {
          expect(run.entry).toBe(point)
          point = run.link.a === run.entry ? run.link.b : run.link.a
        }
        expect(sides).toContain(point)
      }
    }
  }
})

test('the order of records does not matter to what is found', () => {
  const { site } = randomSite(11)
  const turned = <T extends object>(o: T): T => Object.fromEntries(Object.entries(o).reverse()) as T
  const other = { ...site, cables: turned(site.cables), splices: turned(site.splices), devices: turned(site.devices) }
  const told = (s: typeof site) =>
    Object.fromEntries(
      [...hangingOn(s, wiringOf(s), A)].map(([t, h]) => [
        t,
        { coils: [...h.coils].sort(), loose: h.loose.length, landed: h.landed },
      ]),
    )
  expect(told(other)).toEqual(told(site))
})
