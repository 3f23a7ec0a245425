import { Draft, type Site } from '../core/site'
import { readFault, type FieldFault } from '../standins'

/** Two boxes on a jacket, two valves in the first and three in the second, a master valve in the first. */
export const twoBoxes = (lead_m = 80): Site => {
  const draft = new Draft('Hard')
    .place('A', 'cabinet')
    .place('B1')
    .place('B2')
    .controller('A', 'A', 5)
    .coilKind('k', 33, { inrush_A: 0.4, holding_A: 0.23 })
    .cable('K', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B1', lead_m / 2],
        ['B2', lead_m],
      ],
      cores: ['white', 'mv', 'c1', 'c2', 'c3', 'c4', 'c5'],
    })
    .valve('MV', 'B1', 'k')
    .pointOfConnection('P', { name: 'Supply', masterValve: 'MV', terminal: { controller: 'A', terminal: 'MV' } })
    .join('A', ['A:C', 'K.white>'])
    .join('A', ['A:MV', 'K.mv>'])
    .join('B1', ['K.mv<', 'MV.a'])
  for (const n of [1, 2, 3, 4, 5]) {
    const box = n <= 2 ? 'B1' : 'B2'
    draft
      .valve(`V${n}`, box, 'k')
      .station(`A:${n}`, `Bed ${n}`, [`V${n}`], { pointOfConnection: 'P' })
      .join('A', [`A:${n}`, `K.c${n}>`])
      .join(box, [`K.c${n}<`, `V${n}.a`])
  }
  return draft
    .join('B1', ['K.white<', 'MV.b', 'V1.b', 'V2.b', 'K.white>'])
    .join('B2', ['K.white<', 'V3.b', 'V4.b', 'V5.b'])
    .site()
}

/** Faults as they are written for the shell. */
export const faultsOf = (on: Site, written: readonly string[]): FieldFault[] =>
  written.map((w) => {
    const f = readFault(on, w)
    if (!f.ok) throw new Error(w)
    return f.value
  })
