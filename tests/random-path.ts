import { genericSystem } from '../core/path'
import { Draft, pathsOf, type PathAt, type Site } from '../core/site'
import { chance } from '../standins'

export interface PathDraw {
  /** Boxes on the path. */
  readonly boxes: number
  /** Two boxes that are joined besides: the path has a loop. */
  readonly looped?: boolean
  readonly exits?: 1 | 2
  /** A box branches off this many before it at most; a long chain where it is 1. */
  readonly back?: number
  /** So many boxes begin a branch and no others. */
  readonly branches?: number
  /** How far a coil lies from its decoder at most, m; 0 joins it without a wire. */
  readonly lead_m?: number
}

/**
 * A path as it might lie: a tree of boxes, a decoder in each, one or two outputs, coils at hand
 * or on leads of their own.
 */
export function randomPath(
  seed: number,
  { boxes, looped = false, exits = 1, back = 4, branches, lead_m = 30 }: PathDraw,
): { site: Site; path: PathAt } {
  const random = chance(seed)
  const pick = (most: number) => Math.floor(random() * most)
  const draft = new Draft(`Path ${seed}`)
    .system('sys', genericSystem(random() < 0.5 ? 'switched' : 'always_live', 'System one'))
    .coilKind('coil', 33, { inrush_A: 0.4, holding_A: 0.23, holding_pf: 0.6 })
    .place('D', 'cabinet')
    .controller('D', 'D', 0, {
      kind: 'two_wire',
      system: 'sys',
      terminals: Object.fromEntries(
        Array.from({ length: 2 * exits }, (_, i) => [`P${i + 1}`, { tag: `P${i + 1}`, role: 'path', order: i }]),
      ),
    })
  const from: { red: string[]; blue: string[] }[] = Array.from({ length: boxes }, () => ({ red: [], blue: [] }))
  const stretch = (name: string, a: number, b: number) => {
    const stops: [string, number][] = [
      [a < 0 ? 'D' : `B${a}`, 0],
      [`B${b}`, Math.round(10 + random() * 110)],
    ]
    draft.cable(name, { gauge: { awg: random() < 0.7 ? 14 : 16 }, stops, cores: ['red', 'blue'] })
    for (const core of ['red', 'blue'] as const) {
      if (a >= 0) from[a]![core].push(`${name}.${core}>`)
      from[b]![core].push(`${name}.${core}<`)
    }
  }
  for (let b = 0; b < boxes; b++) draft.place(`B${b}`)
  let address = 1
  for (let b = 0; b < boxes; b++) {
    const turnsOff = branches !== undefined && b % Math.ceil(boxes / branches) === 0
    const behind = branches === undefined ? pick(Math.min(back, b)) : turnsOff ? pick(b) : 0
    const parent = b < exits ? -1 : b - 1 - behind
    stretch(`K${b}`, parent, b)
    if (parent < 0) draft.join('D', [`D:P${2 * b + 1}`, `K${b}.red>`]).join('D', [`D:P${2 * b + 2}`, `K${b}.blue>`])
  }
  if (looped && boxes > 3) stretch('KL', 1, boxes - 1)
  for (let b = 0; b < boxes; b++) {
    const outputs = 1 + pick(2)
    const decoder = `X${b}`
    draft.device(decoder, 'decoder', `B${b}`, null, { address, outputs })
    const [one, two] = random() < 0.5 ? ['path_1', 'path_2'] : ['path_2', 'path_1']
    draft
      .join(`B${b}`, [...from[b]!.red, `${decoder}.${one}`], 'nut_and_gel_tube')
      .join(`B${b}`, [...from[b]!.blue, `${decoder}.${two}`], 'nut_and_gel_tube')
    const home: string[] = [`${decoder}.common`]
    for (let k = 1; k <= outputs; k++) {
      const valve = `V${b}-${k}`
      const far = lead_m > 0 && random() < 0.3
      draft.valve(valve, far ? `F${b}-${k}` : `B${b}`, 'coil')
      if (far) {
        const length = Math.round(1 + random() * (lead_m - 1))
        draft.place(`F${b}-${k}`).cable(`L${b}-${k}`, {
          kind: 'twisted_pair',
          gauge: { awg: 18 },
          stops: [
            [`B${b}`, 0],
            [`F${b}-${k}`, length],
          ],
          cores: ['green', 'black'],
        })
        draft
          .join(`B${b}`, [`${decoder}.out_${k}`, `L${b}-${k}.green>`])
          .join(`F${b}-${k}`, [`L${b}-${k}.green<`, `${valve}.b`])
          .join(`F${b}-${k}`, [`L${b}-${k}.black<`, `${valve}.a`])
        home.push(`L${b}-${k}.black>`)
      } else {
        draft.join(`B${b}`, [`${decoder}.out_${k}`, `${valve}.a`])
        home.push(`${valve}.b`)
      }
    }
    draft.join(`B${b}`, home)
    address += outputs
  }
  const site = draft.site()
  return { site, path: pathsOf(site)[0]! }
}
