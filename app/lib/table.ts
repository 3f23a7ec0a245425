/** A column of a table: its heading, whether it holds figures, and what it is sorted by where it can be. */
export interface TableColumn<Row> {
  readonly key: string
  readonly header: string
  readonly figure?: boolean
  readonly sort?: (row: Row) => string | number
  readonly class?: string
}
