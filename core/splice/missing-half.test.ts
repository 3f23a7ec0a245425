import { demoProperty } from '../../demo/quarry-lake'
import {
  applyBatch,
  endKey,
  setField,
  type CableId,
  type Command,
  type PlaceId,
  type Site,
  type TerminalId,
} from '../site'
import { endsAt, leadsWaiting, looseCommands, missingHalfCommands, sparesHome } from '.'

const { site } = demoProperty()
const B7 = 'B7' as PlaceId
const changed = (before: Site, commands: readonly Command[]): Site => {
  const applied = applyBatch(before, commands)
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  return applied.value.site
}
const heldWith = (now: Site, key: string) =>
  Object.values(now.splices).find((s) => s.ends.some((e) => endKey(e) === key))

test('spares from a box to a cabinet are those that are free at both ends and whole between', () => {
  const spares = sparesHome(site, B7)
  expect(spares.map((s) => [s.controller, s.box.seen.from, s.box.seen.colour]).sort()).toEqual([
    ['A', 'K1', 'brown/white'],
    ['A', 'K1', 'grey/white'],
    ['A', 'K1', 'violet/white'],
  ])
  const cable = site.cables['K1' as CableId]!
  const open = { state: 'open' as const, since: null, note: '' }
  const broken = changed(site, [
    setField('cables', 'K1', 'cores', {
      ...cable.cores,
      'grey-white': { ...cable.cores['grey-white' as never]!, conditions: { B3: open } },
      'violet-white': { ...cable.cores['violet-white' as never]!, condition: open },
    } as never),
  ])
  expect(sparesHome(broken, B7).map((s) => s.box.seen.colour)).toEqual(['brown/white'])
  expect(sparesHome(site, 'B2' as PlaceId)).toEqual([])
})

test('the missing half is joined in the box and landed at the cabinet in one change; a joint that takes neither writes nothing', () => {
  // The lead of the valve in B7 as it was found: on no mate.
  const valve = endsAt(site, B7).find(
    (e) => e.seen.end.kind === 'port' && e.seen.end.device === 'V12' && e.seen.end.port === 'a',
  )!
  const terminal = { kind: 'terminal' as const, controller: 'A' as never, terminal: '12' as TerminalId }
  const found = changed(site, looseCommands(site, [valve.seen.end, terminal]))
  expect(leadsWaiting(found, B7).map((e) => endKey(e.seen.end))).toContain(endKey(valve.seen.end))
  const [spare] = sparesHome(found, B7)
  const made = missingHalfCommands(found, B7, valve.seen.end, spare!, '12' as TerminalId)
  if (!made.ok) throw new Error(JSON.stringify(made.refusals))
  const now = changed(found, made.value)
  const inBox = heldWith(now, endKey(valve.seen.end))!
  expect([inBox.place, inBox.ends.map(endKey).sort()]).toEqual([
    'B7',
    [endKey(valve.seen.end), endKey(spare!.box.seen.end)].sort(),
  ])
  const atDoor = heldWith(now, endKey(terminal))!
  expect([atDoor.place, atDoor.connector, atDoor.ends.map(endKey)]).toEqual([
    'A',
    'terminal',
    [endKey(terminal), endKey(spare!.cabinet.seen.end)],
  ])
  expect(sparesHome(now, B7)).toHaveLength(sparesHome(found, B7).length - 1)
})
