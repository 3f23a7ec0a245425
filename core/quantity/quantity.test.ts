import {
  area_mm2,
  celsius,
  copperFactor,
  fahrenheit,
  gaugeText,
  inUnit,
  lengthText,
  maximum_ohmPerM,
  nominal_ohmPerM,
  ohmsText,
  ohmsWithUnit,
  parseGauge,
  parseLength,
  parseOhms,
  printFigure,
  temperatureText,
  toMetres,
} from './index'

test('AWG resistance at 20 °C is the trade’s table, to its last figure', () => {
  const table: [awg: number, ohmPerKm: number][] = [
    [20, 33.31],
    [18, 20.95],
    [16, 13.17],
    [14, 8.285],
    [12, 5.211],
    [10, 3.277],
    [8, 2.061],
    [6, 1.296],
  ]
  for (const [awg, ohmPerKm] of table)
    expect(Math.abs(nominal_ohmPerM({ awg }) * 1000 - ohmPerKm) / ohmPerKm).toBeLessThan(4e-4)
})

test('solid copper at 75 °C is the national code’s column, 18 to 8 AWG within half a per cent', () => {
  const perThousandFeet: [awg: number, ohm: number][] = [
    [18, 7.77],
    [16, 4.89],
    [14, 3.07],
    [12, 1.93],
    [10, 1.21],
    [8, 0.764],
  ]
  for (const [awg, ohm] of perThousandFeet) {
    const ours = nominal_ohmPerM({ awg }) * copperFactor(75) * toMetres(1000, 'ft')
    expect(Math.abs(ours - ohm) / ohm).toBeLessThan(0.005)
  }
})

test('metric sizes: the nominal is resistivity over area, the maximum is the standard’s and never less', () => {
  expect(nominal_ohmPerM({ area_mm2: 1.5 }) * 1000).toBeCloseTo(17.241 / 1.5, 9)
  const standard: [area: number, ohmPerKm: number][] = [
    [0.5, 36],
    [0.75, 24.5],
    [1, 18.1],
    [1.5, 12.1],
    [2.5, 7.41],
    [4, 4.61],
    [6, 3.08],
  ]
  for (const [area, ohmPerKm] of standard) {
    const above = ohmPerKm / 1000 / nominal_ohmPerM({ area_mm2: area })
    expect(maximum_ohmPerM({ area_mm2: area })).toBeCloseTo(ohmPerKm / 1000, 9)
    expect(above).toBeGreaterThan(1.03)
    expect(above).toBeLessThan(1.08)
  }
  expect(maximum_ohmPerM({ area_mm2: 35 })).toBe(nominal_ohmPerM({ area_mm2: 35 }))
  expect(area_mm2({ awg: 14 })).toBeCloseTo(2.081, 3)
  expect([gaugeText({ awg: 18 }), gaugeText({ area_mm2: 0.75 })]).toEqual(['18 AWG', '0.75 mm²'])
})

test('ohms as people write them, and only what can be meant one way', () => {
  const good: [text: string, ohm: number][] = [
    ['34.6', 34.6],
    ['34,6', 34.6],
    [' 12 ', 12],
    ['.9', 0.9],
    ['0', 0],
    ['1.2k', 1200],
    ['1.2 K', 1200],
    ['0.47M', 470_000],
    ['5 Ω', 5],
    ['5 ohms', 5],
    ['2.2kΩ', 2200],
    ['33.', 33],
  ]
  for (const [text, ohm] of good) expect([text, parseOhms(text)]).toEqual([text, expect.closeTo(ohm, 9)])
  for (const text of ['', '3m', '1,234', '12,345', '1.2.3', '-4', '1e3', '٣', 'k', '1 2', 'Infinity', '0x1F', '3kk'])
    expect([text, parseOhms(text)]).toEqual([text, null])
})

test('ohms for a person read back as what was meant, to three figures', () => {
  for (const ohm of [
    0.03, 0.5, 0.94, 1, 9.96, 34.64, 99.95, 470, 999.9, 1000, 1234, 99_950, 470e3, 999_951, 4.2e6, 20e6,
  ]) {
    const text = ohmsText(ohm).replaceAll(' ', '')
    expect(Math.abs(parseOhms(text)! - ohm) / ohm).toBeLessThan(ohm < 1 ? 0.2 : 0.006)
  }
  expect([ohmsText(0), ohmsText(34.64), ohmsWithUnit(34.64), ohmsWithUnit(1200), ohmsWithUnit(4.2e6)]).toEqual([
    '0.0',
    '34.6',
    '34.6 Ω',
    '1.2 kΩ',
    '4.2 MΩ',
  ])
})

test('figures go into the property’s units by the ending of their names, and back', () => {
  const yards = { length: 'ft', temperature: 'F' } as const
  const metres = { length: 'm', temperature: 'C' } as const
  expect([lengthText(77, metres), lengthText(77, yards), lengthText(2.44, metres), temperatureText(14, yards)]).toEqual(
    ['77 m', '253 ft', '2.4 m', '57 °F'],
  )
  expect([
    printFigure('length_m', 100, yards),
    printFigure('at_C', 20, yards),
    printFigure('excess_ohm', 1.5, yards),
    printFigure('share_ratio', 0.456, yards),
    printFigure('count', 3, yards),
    printFigure('tags', '1, 2', yards),
  ]).toEqual(['328 ft', '68 °F', '1.5 Ω', '46 %', '3', '1, 2'])
  for (const at of [-40, 0, 14, 90]) expect(celsius(fahrenheit(at))).toBeCloseTo(at, 9)
  for (const length of [0, 1, 123.4]) expect(toMetres(inUnit(length, 'ft'), 'ft')).toBeCloseTo(length, 9)
})

test('lengths and sizes as written; a bare figure is in the property’s own', () => {
  expect(['46', '46 m', '46,5', "150'", '150 ft'].map((t) => parseLength(t, 'm'))).toEqual([46, 46, 46.5, 45.72, 45.72])
  expect(['100', '-3', '3 km', '', 'far'].map((t) => parseLength(t, 'ft'))).toEqual([
    expect.closeTo(30.48, 9),
    null,
    null,
    null,
    null,
  ])
  expect(['18', 'AWG 14', '#12', '1.5 mm²', '2,5 mm2'].map((t) => parseGauge(t, 'awg'))).toEqual([
    { awg: 18 },
    { awg: 14 },
    { awg: 12 },
    { area_mm2: 1.5 },
    { area_mm2: 2.5 },
  ])
  expect(['0.75', '16 awg', '99 awg', 'thick'].map((t) => parseGauge(t, 'metric'))).toEqual([
    { area_mm2: 0.75 },
    { awg: 16 },
    null,
    null,
  ])
})
