import { Draft, type Site } from '../core/site'

/** Three stations on leads of their own, one of them a spare, and a sequencer of two outputs on screws 4 and 5. */
export function sequencedSite(scheduling: Record<string, unknown> = {}, rating_VA = 40): Site {
  return new Draft('Schedule')
    .coilKind('coil', 33, { inrush_A: 0.4, holding_A: 0.23 })
    .place('A', 'cabinet')
    .place('B1')
    .controller('A', 'A', 6, { transformer: { rating_VA }, scheduling })
    .cable('K', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B1', 60],
      ],
      cores: ['white', 'red', 'blue', 'green'],
    })
    .valve('V1', 'B1', 'coil')
    .valve('V2', 'B1', 'coil')
    .valve('V4', 'B1', 'coil')
    .valve('V5', 'B1', 'coil')
    .valve('M', 'B1', 'coil')
    .device('Q', 'sequencer', 'B1', null, { outputs: 2 })
    .pointOfConnection('Supply', { name: 'Supply', masterValve: 'M', terminal: { controller: 'A', terminal: 'MV' } })
    .join('A', ['A:C', 'K.white>'])
    .join('A', ['A:1', 'K.red>'])
    .join('A', ['A:2', 'K.blue>'])
    .join('A', ['A:4', 'A:5', 'K.green>'])
    .join('B1', ['K.red<', 'V1.a'])
    .join('B1', ['K.blue<', 'V2.a'])
    .join('B1', ['K.green<', 'Q.in'])
    .join('B1', ['Q.out_1', 'V4.a'])
    .join('B1', ['Q.out_2', 'V5.a'])
    .join('B1', ['K.white<', 'V1.b', 'V2.b', 'V4.b', 'V5.b', 'Q.common', 'M.b'])
    .station('A:1', 'Bed', ['V1'], { pointOfConnection: 'Supply' })
    .station('A:2', 'Lawn', ['V2'])
    .station('A:3', 'Spare', [], { pointOfConnection: 'Supply' })
    .station('A:4', 'Left', ['V4'])
    .station('A:5', 'Right', ['V5'])
    .site()
}
