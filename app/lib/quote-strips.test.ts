import { quarryLake } from '../../demo/quarry-lake'
import { sceneOf } from '../../core/expect'
import { dueOn } from '../../core/quote'
import type { Part } from '../../core/record'
import {
  applyBatch,
  getOrThrow,
  setField,
  type CableId,
  type ControllerId,
  type CoreId,
  type Site,
} from '../../core/site'
import { changedRuns, sameThread, threadOf } from './quote-strips'

const K1 = 'K1' as CableId
const WHITE = 'white' as CoreId

/** The demo with the main run's common cut beyond B4, and known to be. */
function cut(): Site {
  const site = quarryLake()
  const { cores } = getOrThrow(site.cables, K1)
  const white = { ...getOrThrow(cores, WHITE), conditions: { B4: { state: 'open' as const, since: null, note: '' } } }
  const made = applyBatch(site, [setField('cables', K1, 'cores', { ...cores, white })])
  if (!made.ok) throw new Error(JSON.stringify(made.refusals))
  return made.value.site
}

test('a common that is swapped to a spare between two boxes lies there by another core, and nowhere else', () => {
  const site = cut()
  const [due] = dueOn(site, '2027-05-01')
  const found = threadOf(sceneOf(site), due!.where)!
  expect([found.section, found.terminal, found.bad]).toEqual(['K1', null, [{ from_m: 120, to_m: 168, p: 1 }]])
  const after = (code: string) => {
    const option = due!.options.find((o) => o.possible && o.code === code)
    const made = option?.possible ? applyBatch(site, [...option.commands]) : null
    if (!made?.ok) throw new Error(code)
    return sameThread(sceneOf(made.value.site), found)!
  }
  const changed = changedRuns(found.strip, after('spare_core'))
  expect(changed.map((r) => [r.from, r.to, r.link.core === WHITE, r.broken])).toEqual([['B4', 'B5', false, false]])
  expect(after('spare_core').length_m).toBe(found.strip.length_m)
})

test('a coil lies at the end of its station’s thread; a supply lies on none, nor does what is on record no more', () => {
  const scene = sceneOf(quarryLake())
  const coil = threadOf(scene, { kind: 'coil', device: 'V18' } as Part)!
  expect([coil.terminal, coil.bad]).toMatchObject(['18', [{ from_m: coil.strip.length_m, coil: true }]])
  expect(sameThread(scene, coil)).toEqual(coil.strip)
  expect(changedRuns(coil.strip, coil.strip)).toEqual([])
  expect(threadOf(scene, { kind: 'supply', controller: 'A' as ControllerId })).toBeNull()
  expect(threadOf(scene, { kind: 'coil', device: 'gone' } as unknown as Part)).toBeNull()
})
