import { quarryLake } from '../../demo/quarry-lake'
import type { Part } from '../record'
import { knownBad, USUAL_FIGURES } from '../repair'
import { applyBatch, checkSite, type Site } from '../site'
import { dueOn } from '.'

/** A coil, a joint, a core and a touch that the record knows to be bad, each noted with what was seen. */
function broken(): Site {
  const demo = quarryLake()
  const open = { state: 'open' as const, since: '2027-03-02', note: 'cut off' }
  const K1 = demo.cables['K1' as never] as Site['cables'][never]
  const core = K1.cores['brown' as never]
  const gripped = Object.entries(demo.splices).find(([, s]) => s.place === 'B6' && s.ends.length === 2)![1]
  const [joint, jointed] = Object.entries(demo.splices).find(([, s]) => s.place === 'B2' && s.ends.length === 2)!
  return {
    ...demo,
    cables: {
      ...demo.cables,
      K1: {
        ...K1,
        cores: { ...K1.cores, brown: { ...core, conditions: { B2: { ...open, note: 'cut by an edger' } } } },
      },
    },
    devices: { ...demo.devices, V9: { ...demo.devices['V9' as never], condition: open } },
    splices: { ...demo.splices, [joint]: { ...demo.splices[joint as never], condition: open } },
    defects: {
      grip: { kind: 'grip', end: gripped.ends[0], ohm: null, since: '2027-03-04', note: 'green copper' },
      // The same joint twice: what leaks there is cut out with what is open.
      leak: { kind: 'leak', end: jointed.ends[1], ohm: 4000, since: '2027-03-05', note: 'brine' },
      touch: {
        ...{ kind: 'touch', cable: 'K1', core: 'red', other: 'yellow', from: 'A', ohm: 0 },
        ...{ since: '2027-03-03', note: 'seen wet' },
      },
    },
  } as unknown as Site
}

test('each repair of what is known to be bad takes it off the record, or leaves it as it was noted, out of use; never a word lost', () => {
  const site = broken()
  const known = knownBad(site)
  expect(known.map((k) => k.where.kind).sort()).toEqual(['coil', 'joint', 'joint', 'run', 'touch'])
  const before = checkSite(site).filter((f) => f.weight === 'wrong').length
  let [made, kept] = [0, 0]
  for (const { where, options } of dueOn(site, '2027-05-01'))
    for (const option of options) {
      if (!option.possible) continue
      const after = applyBatch(site, [...option.commands])
      if (!after.ok) throw new Error(`${where.kind} ${option.code}: ${JSON.stringify(after.refusals)}`)
      const text = JSON.stringify(after.value.site)
      // What no repair took off the record lies where it lay, out of use, by what was noted of it.
      // A cable that is converted leaves all its bad cores out at once.
      const left = knownBad(after.value.site).length
      if (option.code === 'two_wire') expect(left).toBeLessThan(known.length)
      else expect(left).toBe(known.length - 1)
      const isNoted = text.includes(where.kind === 'touch' ? 'seen wet' : where.kind === 'run' ? 'edger' : '"V9"')
      if (option.code === 'spare_core' || option.code === 'new_wire' || option.code === 'two_on_lead') {
        expect(isNoted).toBe(true)
        kept++
      }
      expect(checkSite(after.value.site).filter((f) => f.weight === 'wrong').length).toBeLessThanOrEqual(before)
      made++
    }
  expect(made).toBeGreaterThan(5)
  expect(kept).toBeGreaterThan(0)
})

test('parts that hunts named stand beside what is known, each once; those on record no more do not', () => {
  const site = broken()
  const known = dueOn(site, '2027-05-01')
  const coil = { kind: 'coil', device: 'V18' } as Part
  const named: Part[] = [known[0]!.where, coil, coil, { kind: 'coil', device: 'gone' } as unknown as Part]
  const due = dueOn(site, '2027-05-01', USUAL_FIGURES, named)
  expect(due.map((d) => d.where)).toEqual([...known.map((k) => k.where), coil])
  expect(
    due
      .at(-1)!
      .options.filter((o) => o.possible)
      .map((o) => o.code),
  ).toContain('coil')
})
