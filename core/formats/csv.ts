import Papa from 'papaparse'

/** What a spreadsheet would take for the beginning of a formula. */
const FORMULA = /^[=+\-@\t\r]/
/** The same behind the apostrophes that keep it from being one; one of them is ours. */
const KEPT_FROM = /^'('*[=+\-@\t\r])/

/**
 * Rows as CSV. A text that a spreadsheet would take for a formula gets an apostrophe before it, and a text that begins
 * with an apostrophe before such a one gets another, so that `cellRead` gives back what was written.
 */
export function writeCsv(rows: readonly (readonly unknown[])[]): string {
  const safe = rows.map((row) => row.map((cell) => (typeof cell === 'string' ? neutral(cell) : cell)))
  return `${Papa.unparse(safe, { newline: '\n' })}\n`
}

const neutral = (cell: string) => (FORMULA.test(cell) || KEPT_FROM.test(cell) ? `'${cell}` : cell)

/** A cell as it was meant: without the apostrophe that keeps a spreadsheet from computing it. */
export const cellRead = (cell: string): string => (KEPT_FROM.test(cell) ? cell.slice(1) : cell)

/** The rows of a CSV with a header, by the header's names in small letters. */
export function readCsvRecords<R extends object>(text: string): { rows: R[]; fields: readonly string[] } {
  const parsed = Papa.parse<R>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (h) => h.trim().toLowerCase(),
    transform: cellRead,
  })
  return { rows: parsed.data, fields: parsed.meta.fields ?? [] }
}

/** The cells of a table that was pasted or saved, whatever its separator. */
export const readCsvRows = (text: string): string[][] =>
  Papa.parse<string[]>(text, {
    skipEmptyLines: 'greedy',
    delimitersToGuess: ['\t', ';', ','],
    transform: cellRead,
  }).data
