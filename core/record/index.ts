export { factId, instant, revisionNumber, uuid } from './basics'
export { answerOf, answers, isHuntTest, optionOf, saysOf, testKindOf, testKinds } from './tests'
export { cabinetTest, fieldTest } from './tests/schema'
export { readingValue } from './tests/value'
export type { AnswerOption } from './tests'
export type { Clip, Setup } from './tests/kind'
export type {
  CabinetTest,
  FieldTest,
  FieldTestKind,
  HuntTest,
  OhmsTest,
  OhmsValue,
  ReadingValue,
  TestKind,
  TestOn,
} from './tests'
export { factKinds, factsSchema, kindOf, noFacts, ownerIdOf } from './kinds'
export type { AnyFact, FactBody, FactKind, FactOf, Facts } from './kinds'
export type { FactContext } from './kinds/kind'
export type { Acceptance } from './kinds/acceptance'
export { CAUTIONS } from './kinds/caution'
export type { Caution, CautionCode } from './kinds/caution'
export type { Closing } from './kinds/closing'
export type { Finding } from './kinds/finding'
export { MOST_CORES } from './core-ends'
export type { Earthed, EarthReading } from './kinds/earth-reading'
export type { PathReading, PathTried } from './kinds/path-reading'
export { isAsked, isParted, pathTest, pathValue } from './path-tests'
export type { PathTest, PathValue } from './path-tests'
export { SORTING_METHODS } from './kinds/core-trial'
export type { CoreTrial, CoreTried } from './kinds/core-trial'
export { FIX_KINDS } from './kinds/mark'
export type { Mark, Marked } from './kinds/mark'
export { JOB_KINDS } from './kinds/job'
export type { Following, Job, JobKind, Sorting, Tracing } from './kinds/job'
export type { StepAnswer, StepDone } from './kinds/step'
export type { KitTick } from './kinds/kit'
export type { Photo } from './kinds/photo'
export type { PhotoMark, PhotoNote } from './kinds/photo-note'
export { photosOf } from './photos'
export type { Shown } from './photos'
export * from './procedure'
export { WIRING_STATES } from './kinds/reading'
export type { Reading, WiringState } from './kinds/reading'
export { isOhms } from './ohms-reading'
export { failingStates } from './state'
export type { StatedReading } from './state'
export type { OhmsReading } from './ohms-reading'
export type { StrikeOut } from './kinds/strike-out'
export type { SequencerTold, SequencerTurn } from './kinds/sequencer-turn'
export type { Visit } from './kinds/visit'
export {
  controllerOf,
  jobsByVisit,
  jobsInOrder,
  jobsThatRead,
  offFor,
  peopleOf,
  readingsOf,
  readingKey,
  readingsToGoBy,
  standingReadings,
  isToEarth,
  testKey,
  visitsInOrder,
  withFact,
} from './facts'
export type { Logged } from './facts'
export { batch, message, messageBody, SCHEMA_VERSION, undo } from './message'
export type { Batch, Message, MessageBody } from './message'
export { part } from './part'
export { partKey } from './part-key'
export { targetOfPart } from './part-target'
export type { Part, RunPart } from './part'
export { COMMON_METER, meter } from './meter'
export type { Meter } from './meter'
export { news } from './news'
export type { News } from './news'
export { presence } from './presence'
export type { Doing, Presence } from './presence'
export { addressOf, footprintOf, rebase, takeBack } from './change'
export type { Accepted, ChangedByOthers, Standing } from './change'
export { ChangedFields } from './changed-fields'
export type { Footprint } from './changed-fields'
export { SEVERITIES, SIGHTED } from './kinds/sighting'
export type { Severity, Sighted, Sighting } from './kinds/sighting'
export { SIGHTING_STATES } from './kinds/sighting-turn'
export type { SightingState, SightingTurn } from './kinds/sighting-turn'
export type { QuotedItem, QuoteLine, SentQuote } from './kinds/quote'
export type { QuoteTurn, Signature } from './kinds/quote-turn'
export type { WorkDone } from './kinds/work-done'
export { priceList, PRICE_UNITS, ROUNDINGS } from './prices'
export type { LineUnit, PriceList, PriceUnit, Rounding } from './prices'
