import fc from 'fast-check'
import Papa from 'papaparse'
import { cellRead, writeCsv } from './csv'

test('no cell is a formula to a spreadsheet, and every cell comes back as it was', () => {
  const start = fc.constantFrom('', '=', '+', '-', '@', '\t', "'", "'=", "''-", '=cmd|', '"')
  const cell = fc
    .tuple(start, fc.string({ maxLength: 6, unit: fc.constantFrom(...'aB1 ,;"\'=+-@\t') }))
    .map((p) => p.join(''))
  fc.assert(
    fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 5 }), (rows) => {
      const text = writeCsv(rows)
      for (const raw of Papa.parse<string[]>(text, { delimiter: ',' }).data)
        for (const cell of raw) expect(cell).not.toMatch(/^[=+\-@\t\r]/)
      const raw = Papa.parse<string[]>(text, { delimiter: ',' }).data.slice(0, rows.length)
      expect(raw.map((row) => row.map(cellRead))).toEqual(rows)
    }),
    { seed: 6, numRuns: 800 },
  )
  expect(['=1+1', "'=1+1", "'plain", "''=x"].map(cellRead)).toEqual(['=1+1', '=1+1', "'plain", "'=x"])
})

test('a figure stays a figure', () => {
  expect(writeCsv([[-3, 'a']])).toBe('-3,a\n')
})
