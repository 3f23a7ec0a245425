export { looking, NEEDS, savedView, SORTS } from './list'
export type { Looking, Need, SavedView, Sort } from './list'
export { COMPANY_RECORDS } from './records'
export type { CompanyRecordKind, CompanyRecordOf } from './records'
