import { Draft, type Site } from '../core/site'
import { seeded } from '../tests/random-site'

/**
 * A plan of many stations with every size open: four trunks of single conductors, unlike coils, a master valve, boxes
 * of up to four valves.
 */
export function manyPlanned(count: number, seed = 1): Site {
  const random = seeded(seed)
  const draft = new Draft(`${count} planned`)
    .setting('V_open_V', 28)
    .place('A', 'cabinet')
    .coilKind('k1', 33, { inrush_A: 0.4, holding_A: 0.23 })
    .coilKind('k2', 52, { inrush_A: 0.25, holding_A: 0.19 })
    .coilKind('k3', 24, { inrush_A: 0.6, holding_A: 0.35 })
    .controller('A', 'A', count, { transformer: { rating_VA: 75 } })
  const homes: string[] = []
  const trunks = Math.max(1, Math.min(4, Math.round(count / 12)))
  let n = 0
  for (let trunk = 0; trunk < trunks; trunk++) {
    const mine = Math.floor(((trunk + 1) * count) / trunks) - n
    const sizes: number[] = []
    for (let left = mine; left > 0; left -= sizes.at(-1)!) sizes.push(Math.min(left, 1 + Math.floor(random() * 4)))
    let at = 0
    const span = (300 + 500 * random()) / sizes.length
    const stops = sizes.map((_, b): [string, number] => [`T${trunk}B${b}`, Math.round((at += span * (0.5 + random())))])
    for (const [box] of stops) draft.place(box)
    draft.cable(`G${trunk}`, { gauge: null, kind: 'single', stops: [['A', 0], ...stops], cores: ['white'] })
    homes.push(`G${trunk}.white>`)
    if (trunk === 0) {
      draft
        .cable('M', { gauge: null, kind: 'single', stops: [['A', 0], stops[0]!], cores: ['grey'] })
        .valve('MV', stops[0]![0], 'k2')
        .join('A', ['A:MV', 'M.grey>'])
        .join(stops[0]![0], ['M.grey<', 'MV.a'])
        .pointOfConnection('P', { name: 'Supply', masterValve: 'MV', terminal: { controller: 'A', terminal: 'MV' } })
    }
    sizes.forEach((valves, b) => {
      const [box, at_m] = stops[b]!
      const ports: string[] = trunk === 0 && b === 0 ? ['MV.b'] : []
      for (let v = 0; v < valves; v++) {
        n++
        ports.push(`V${n}.b`)
        draft
          .valve(`V${n}`, box, random() < 0.6 ? 'k1' : random() < 0.5 ? 'k2' : 'k3')
          .station(`A:${n}`, `Station ${n}`, [`V${n}`], { pointOfConnection: 'P' })
          .cable(`L${n}`, {
            gauge: null,
            kind: 'single',
            stops: [
              ['A', 0],
              [box, at_m],
            ],
            cores: ['red'],
          })
          .join('A', [`A:${n}`, `L${n}.red>`])
          .join(box, [`L${n}.red<`, `V${n}.a`])
      }
      draft.join(
        box,
        [`G${trunk}.white<`, ...ports, ...(b < sizes.length - 1 ? [`G${trunk}.white>`] : [])],
        'nut_and_gel_tube',
      )
    })
  }
  return draft.join('A', ['A:C', ...homes]).site()
}
