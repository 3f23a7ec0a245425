import { Draft, type Site } from '../core/site'

/** Seeded numbers in 0 … 1 (mulberry32): the same seed gives the same property on every machine. */
export function seeded(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), state | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

export interface RandomSite {
  readonly site: Site
  /** Station tags in order. */
  readonly stations: readonly string[]
  readonly looped: boolean
}

const GAUGES = [{ awg: 18 }, { awg: 16 }, { awg: 14 }, { area_mm2: 0.75 }, { area_mm2: 1.5 }] as const

/**
 * A made-up property with one controller `A`: one or two runs of boxes on multi-core cables of unlike size, a station
 * or two in each box, at times a common of two cores side by side, a second way home from the last box, a lead with
 * two valves.
 */
export function randomSite(seed: number, { loops = true } = {}): RandomSite {
  const random = seeded(seed)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const chance = (p: number) => random() < p
  const draft = new Draft(`random ${seed}`)
    .place('A', 'cabinet')
    .coilKind('k33', 33)
    .coilKind('k52', 52)
    .coilKind('k24', 24)
  const runs = Array.from({ length: chance(0.4) ? 2 : 1 }, (_, r) => {
    let at = 0
    return Array.from({ length: 2 + Math.floor(random() * 4) }, (_, i) => ({
      tag: `R${r}B${i + 1}`,
      at_m: (at += 10 + Math.round(random() * 60)),
      valves: chance(0.4) ? 2 : 1,
    }))
  })
  const stations: string[] = []
  const count = runs.flat().reduce((sum, box) => sum + box.valves, 0)
  draft.controller('A', 'A', count)
  const homes: string[] = []
  let looped = false
  runs.forEach((boxes, r) => {
    const cable = `K${r}`
    const second = chance(0.3)
    const commons = loops && second ? ['white', 'black'] : ['white']
    const leads = boxes.flatMap((box) =>
      Array.from({ length: box.valves }, () => ({
        box: box.tag,
        tag: String(stations.push(String(stations.length + 1))),
      })),
    )
    for (const box of boxes) draft.place(box.tag)
    draft.cable(cable, {
      gauge: pick(GAUGES),
      stops: [['A', 0], ...boxes.map((b): [string, number] => [b.tag, b.at_m])],
      cores: [...commons, ...leads.map((l) => `c${l.tag}`)],
    })
    if (chance(0.5)) draft.core(cable, 'white', { gauge: { value: pick(GAUGES), how: 'seen' } })
    homes.push(...commons.map((c) => `${cable}.${c}>`))
    const taps = new Map(boxes.map((b) => [b.tag, [] as string[]]))
    for (const lead of leads) {
      const valve = `V${lead.tag}`
      draft.valve(valve, lead.box, pick(['k33', 'k52', 'k24'])).station(`A:${lead.tag}`, `Station ${lead.tag}`, [valve])
      const more = chance(0.1)
      if (more) draft.valve(`${valve}b`, lead.box, 'k33')
      draft
        .join('A', [`A:${lead.tag}`, `${cable}.c${lead.tag}>`])
        .join(lead.box, [`${cable}.c${lead.tag}<`, `${valve}.a`, ...(more ? [`${valve}b.a`] : [])])
      taps.get(lead.box)!.push(`${valve}.b`, ...(more ? [`${valve}b.b`] : []))
    }
    const ring = loops && chance(0.3)
    if (ring) {
      looped = true
      draft.cable(`H${r}`, {
        gauge: pick(GAUGES),
        kind: 'single',
        stops: [
          ['A', 0],
          [boxes.at(-1)!.tag, boxes.at(-1)!.at_m + 15],
        ],
        cores: ['grey'],
      })
      homes.push(`H${r}.grey>`)
    }
    boxes.forEach((box, i) => {
      const last = i === boxes.length - 1
      draft.join(
        box.tag,
        [
          ...commons.map((c) => `${cable}.${c}<`),
          ...taps.get(box.tag)!,
          ...(last ? (ring ? [`H${r}.grey<`] : []) : commons.map((c) => `${cable}.${c}>`)),
        ],
        'nut_and_gel_tube',
      )
    })
  })
  draft.join('A', ['A:C', ...homes])
  return { site: draft.site(), stations, looped }
}
