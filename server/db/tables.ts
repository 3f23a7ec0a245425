import type { ColumnType, Generated, Insertable } from 'kysely'
import type { Facts } from '../../core/record'
import type { Command, Site, Write } from '../../core/site'

/** JSONB: read as its value, written as text. */
type Json<T> = ColumnType<T, string, string>
type Moment = ColumnType<Date, Date, Date>

interface Owned {
  company: string
  author: string
}

interface PropertyRow extends Owned {
  id: string
  name: string
  revision: number
  schema_version: number
  site: Json<Site>
  controllers: number
  stations: number
  created_at: Generated<Date>
  updated_at: Generated<Date>
}

/** The journal: every accepted batch with what each field was and became. */
interface BatchRow extends Owned {
  id: string
  property: string
  revision: number
  author_name: string
  device: string
  at: Moment
  received_at: Generated<Date>
  commands: Json<Command[]>
  writes: Json<Write[]>
  undoes: string | null
}

interface SnapshotRow {
  property: string
  revision: number
  site: Json<Site>
}

interface FactRow<T> extends Owned {
  property: string
  id: string
  at: Moment
  received_at: Generated<Date>
  fact: Json<T>
}
type FactOf<K extends keyof Facts> = FactRow<Facts[K][string]>

export interface Tables {
  companies: { id: string; name: string }
  users: { id: string; company: string; name: string }
  properties: PropertyRow
  batches: BatchRow
  snapshots: SnapshotRow
  visits: FactOf<'visits'>
  readings: FactOf<'readings'> & { visit: string }
  strike_outs: FactOf<'strikeOuts'> & { reading: string }
  cautions: FactOf<'cautions'> & { visit: string }
  closings: FactOf<'closings'> & { visit: string }
  acceptances: FactOf<'acceptances'> & { reading: string }
  findings: FactOf<'findings'> & { visit: string }
  pictures: Owned & { property: string; sha256: string; received_at: Generated<Date>; kind: string; bytes: Buffer }
  markers: { name: string; at: Generated<Date> }
}
export type NewBatch = Insertable<BatchRow>

/** Owner of every row until there are accounts. */
export const DEFAULT_COMPANY = '00000000-0000-7000-8000-000000000001'
export const DEFAULT_USER = '00000000-0000-7000-8000-000000000002'
export const OWNED = { company: DEFAULT_COMPANY, author: DEFAULT_USER }
