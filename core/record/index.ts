export {
  answers,
  cabinetTest,
  CAUTIONS,
  factsSchema,
  fieldTest,
  huntTest,
  instant,
  isHuntTest,
  isOhms,
  noFacts,
  readingValue,
} from './fact'
export type {
  Acceptance,
  CabinetTest,
  Caution,
  CautionCode,
  Closing,
  Facts,
  Finding,
  FieldTest,
  FieldTestKind,
  HuntTest,
  OhmsReading,
  OhmsTest,
  OhmsValue,
  Reading,
  ReadingValue,
  StrikeOut,
  TestKind,
  Visit,
} from './fact'
export { controllerOf, FACT_COLLECTION, readingsOf, standingReadings, testKey, visitsInOrder, withFact } from './facts'
export type { Logged } from './facts'
export { batch, message, messageBody, SCHEMA_VERSION, undo } from './message'
export type { Batch, FactKind, Message, MessageBody } from './message'
export { COMMON_METER, meter } from './meter'
export type { Meter } from './meter'
export { addressOf, footprintOf, rebase, takeBack } from './change'
export type { Accepted, ChangedByOthers, Standing } from './change'
export { ChangedFields } from './changed-fields'
export type { Footprint } from './changed-fields'
