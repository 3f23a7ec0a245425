import { saveBlob } from './save'

/**
 * Gives the reader a workbook to save: a sheet each, its first row the heads. What writes it
 * comes when it is asked for.
 */
export async function saveWorkbook(
  name: string,
  sheets: readonly { readonly name: string; readonly rows: readonly (readonly (string | number)[])[] }[],
): Promise<void> {
  const { default: writeExcelFile } = await import('write-excel-file/browser')
  const written = sheets.map(({ name: sheet, rows }) => ({
    sheet,
    data: rows.map((r, i) => r.map((value) => ({ value, ...(i === 0 ? { fontWeight: 'bold' as const } : {}) }))),
  }))
  saveBlob(`${name}.xlsx`, await writeExcelFile(written).toBlob())
}

/** The first sheet of a workbook as rows of text; null where the file is no workbook. */
export async function readWorkbook(file: File): Promise<string[][] | null> {
  const { readSheet } = await import('read-excel-file/browser')
  try {
    const rows = await readSheet(file)
    return rows.map((cells) => cells.map((c) => (c === null ? '' : String(c))))
  } catch {
    return null
  }
}
