import { Draft, type Site } from '../core/site'

/**
 * A property of one trunk per 128 stations: single conductors, a box every 12 m with four valves, a master valve in
 * the first.
 */
export function manyStations(count: number): Site {
  const draft = new Draft(`${count} stations`)
    .place('A', 'cabinet')
    .coilKind('k', 33, { inrush_A: 0.4, holding_A: 0.23 })
    .controller('A', 'A', count, { transformer: { rating_VA: 60 } })
  const homes: string[] = []
  for (let trunk = 0; trunk * 128 < count; trunk++) {
    const boxes = Math.ceil(Math.min(128, count - trunk * 128) / 4)
    const tag = (box: number) => `T${trunk}B${box}`
    const stops = Array.from({ length: boxes }, (_, box): [string, number] => [tag(box), 12 * (box + 1)])
    for (const [box] of stops) draft.place(box)
    draft.cable(`G${trunk}`, { gauge: { awg: 12 }, kind: 'single', stops: [['A', 0], ...stops], cores: ['white'] })
    homes.push(`G${trunk}.white>`)
    const master = trunk === 0
    if (master) {
      draft
        .cable('M', {
          gauge: { awg: 14 },
          kind: 'single',
          stops: [
            ['A', 0],
            [tag(0), 12],
          ],
          cores: ['grey'],
        })
        .valve('MV', tag(0), 'k')
        .join('A', ['A:MV', 'M.grey>'])
        .join(tag(0), ['M.grey<', 'MV.a'])
        .pointOfConnection('P', { name: 'Supply', masterValve: 'MV', terminal: { controller: 'A', terminal: 'MV' } })
    }
    for (let box = 0; box < boxes; box++) {
      const valves: string[] = []
      for (let v = 0; v < 4 && trunk * 128 + box * 4 + v < count; v++) {
        const n = trunk * 128 + box * 4 + v + 1
        valves.push(`V${n}.b`)
        draft
          .valve(`V${n}`, tag(box), 'k')
          .station(`A:${n}`, `Station ${n}`, [`V${n}`], { pointOfConnection: 'P' })
          .cable(`L${n}`, {
            gauge: { awg: 14 },
            kind: 'single',
            stops: [
              ['A', 0],
              [tag(box), 12 * (box + 1)],
            ],
            cores: ['red'],
          })
          .join('A', [`A:${n}`, `L${n}.red>`])
          .join(tag(box), [`L${n}.red<`, `V${n}.a`])
      }
      draft.join(
        tag(box),
        [
          `G${trunk}.white<`,
          ...(master && box === 0 ? ['MV.b'] : []),
          ...valves,
          ...(box < boxes - 1 ? [`G${trunk}.white>`] : []),
        ],
        'nut_and_gel_tube',
      )
    }
  }
  return draft.join('A', ['A:C', ...homes]).site()
}
