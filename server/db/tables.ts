import type { Lives } from '../../core/failures'
import type { ColumnType, Generated } from 'kysely'
import type { AnyFact, FactKind, Procedure } from '../../core/record'
import type { Command, Site, Write } from '../../core/site'

/** JSONB: read as its value, written as text. */
type Json<T> = ColumnType<T, string, string>
type Moment = ColumnType<Date, Date, Date>

/** Every row says whose it is and who wrote it; keys begin with the company. */
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
  archived_at: ColumnType<Date | null, Date | null | undefined, Date | null>
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
  schema_version: number
  commands: Json<Command[]>
  writes: Json<Write[]>
  undoes: string | null
}

interface SnapshotRow {
  company: string
  property: string
  revision: number
  schema_version: number
  site: Json<Site>
}

interface FactRow extends Owned {
  property: string
  kind: FactKind
  id: string
  owner_kind: FactKind | null
  owner: string | null
  at: Moment
  received_at: Generated<Date>
  schema_version: number
  fact: Json<AnyFact>
}

interface PictureRow extends Owned {
  property: string
  sha256: string
  received_at: Generated<Date>
  kind: string
  bytes: Buffer
}

interface ProcedureRow extends Owned {
  id: string
  revision: number
  updated_at: ColumnType<Date, Date | undefined, Date>
  procedure: Json<Procedure>
}

interface CompanyRecordRow extends Owned {
  kind: string
  revision: number
  updated_at: ColumnType<Date, Date | undefined, Date>
  record: Json<unknown>
}

/** A calendar day, `2027-05-01`. */
type Day = ColumnType<string | null, string | null, string | null>

/** What of a property asks for somebody: worked out from its record, for the list. */
interface AttentionRow {
  company: string
  property: string
  /** What of the property's own row the list goes by: the database keeps it as it is there. */
  name: ColumnType<string, never, never>
  updated_at: ColumnType<Date, never, never>
  archived: ColumnType<boolean, never, never>
  astray: number
  faults: number
  findings: number
  creeping: number
  creeps_on: Day
  temporary: number
  temporary_until: Day
  quotes: number
  quoted_on: Day
  visits: number
  last_visit: ColumnType<Date | null, Date | null, Date | null>
  visit_due: Day
  latitude_deg: number | null
  longitude_deg: number | null
}

export interface Tables {
  companies: { id: string; name: string }
  users: { id: string; company: string; name: string }
  properties: PropertyRow
  batches: BatchRow
  snapshots: SnapshotRow
  facts: FactRow
  pictures: PictureRow
  procedures: ProcedureRow
  company_records: CompanyRecordRow
  attention: AttentionRow
  attention_words: { company: string; property: string; words: string }
  part_lives: { company: string; property: string; lives: Json<Lives[]> }
  attention_wanted: { number: Generated<string>; company: string; property: string; noted_at: Generated<Date> }
  markers: { name: string; at: Generated<Date> }
}

/** Owner of every row until there are accounts. */
export const DEFAULT_COMPANY = '00000000-0000-7000-8000-000000000001'
export const DEFAULT_USER = '00000000-0000-7000-8000-000000000002'
