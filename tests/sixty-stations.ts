import { Draft, type Site } from '../core/site'

const [CABLES, BOXES, VALVES] = [3, 5, 4]

/** A controller of sixty stations on three multi-cores, four valves to a box, with four programs of two starts. */
export function sixtyStations(): Site {
  const draft = new Draft('Sixty')
    .coilKind('coil', 33, { inrush_A: 0.4, holding_A: 0.23 })
    .place('A', 'cabinet')
    .controller('A', 'A', CABLES * BOXES * VALVES, {
      transformer: { rating_VA: 60 },
      scheduling: { window_s: { opens: 20 * 3600, closes: 8 * 3600 }, mostMinutes: 60, mostStarts: 4 },
    })
  const commons: string[] = []
  const stations: string[] = []
  for (let k = 1; k <= CABLES; k++) {
    const boxes = Array.from({ length: BOXES }, (_, b) => `B${k}${b + 1}`)
    for (const box of boxes) draft.place(box)
    const cores = Array.from({ length: BOXES * VALVES }, (_, i) => `c${i + 1}`)
    draft.cable(`K${k}`, {
      gauge: { awg: 16 },
      stops: [['A', 0], ...boxes.map((box, b): [string, number] => [box, 25 + 30 * b])],
      cores: ['white', ...cores],
    })
    commons.push(`K${k}.white>`)
    boxes.forEach((box, b) => {
      const own = Array.from({ length: VALVES }, (_, v) => b * VALVES + v)
      for (const i of own) {
        const number = (k - 1) * BOXES * VALVES + i + 1
        stations.push(String(number))
        draft
          .valve(`V${number}`, box, 'coil')
          .station(`A:${number}`, `Zone ${number}`, [`V${number}`])
          .join('A', [`A:${number}`, `K${k}.c${i + 1}>`])
          .join(box, [`K${k}.c${i + 1}<`, `V${number}.a`])
      }
      const onward = b === BOXES - 1 ? [] : [`K${k}.white>`]
      draft.join(box, [`K${k}.white<`, ...own.map((i) => `V${(k - 1) * BOXES * VALVES + i + 1}.b`), ...onward])
    })
  }
  draft.join('A', ['A:C', ...commons])
  const programs = 4
  const days = [
    { kind: 'odd' },
    { kind: 'even' },
    { kind: 'weekdays', on: [0, 2, 4] },
    { kind: 'every', n: 3, from: '2027-01-01' },
  ]
  for (let p = 0; p < programs; p++)
    draft.program(
      'A',
      'ABCD'[p]!,
      stations.filter((_, i) => i % programs === p).map((s, i) => [s, 5 + (i % 7)]),
      { starts_s: [(20 + p) * 3600, (4 + p) * 3600], days: days[p] },
    )
  return draft.site()
}
