import * as z from 'zod'
import { factId } from '../basics'
import { acceptanceKind } from './acceptance'
import { cautionKind } from './caution'
import { closingKind } from './closing'
import { coreTrialKind } from './core-trial'
import { earthReadingKind } from './earth-reading'
import { findingKind } from './finding'
import { jobKind } from './job'
import type { FactKindOf } from './kind'
import { kitKind } from './kit'
import { markKind } from './mark'
import { pathReadingKind } from './path-reading'
import { photoKind } from './photo'
import { photoNoteKind } from './photo-note'
import { quoteKind } from './quote'
import { quoteTurnKind } from './quote-turn'
import { readingKind } from './reading'
import { sequencerTurnKind } from './sequencer-turn'
import { sightingKind } from './sighting'
import { sightingTurnKind } from './sighting-turn'
import { stepKind } from './step'
import { strikeOutKind } from './strike-out'
import { visitKind } from './visit'
import { workDoneKind } from './work-done'

/** Every kind of fact, owners before what hangs on them. A new kind is a file beside these and a line here. */
const FACT_KINDS = {
  visit: visitKind,
  job: jobKind,
  reading: readingKind,
  strikeOut: strikeOutKind,
  caution: cautionKind,
  closing: closingKind,
  acceptance: acceptanceKind,
  finding: findingKind,
  step: stepKind,
  kit: kitKind,
  photo: photoKind,
  photoNote: photoNoteKind,
  coreTrial: coreTrialKind,
  mark: markKind,
  earthReading: earthReadingKind,
  pathReading: pathReadingKind,
  sequencerTurn: sequencerTurnKind,
  sighting: sightingKind,
  sightingTurn: sightingTurnKind,
  quote: quoteKind,
  quoteTurn: quoteTurnKind,
  workDone: workDoneKind,
} as const

export type FactKind = keyof typeof FACT_KINDS
type Kinds = typeof FACT_KINDS
export type FactOf<K extends FactKind> = z.infer<Kinds[K]['schema']>
export type AnyFact = { [K in FactKind]: FactOf<K> }[FactKind]
/** A fact as a message carries it. */
export type FactBody = { [K in FactKind]: { readonly kind: K; readonly fact: FactOf<K> } }[FactKind]
/** All facts of a property by their ids, a collection a kind. */
export type Facts = { [K in FactKind as Kinds[K]['collection']]: Record<string, FactOf<K>> }

export const factKinds = Object.keys(FACT_KINDS) as FactKind[]

/** A kind by its name, its own types let go of: for whoever treats all kinds alike. */
export const kindOf = (kind: FactKind): FactKindOf<FactKind, keyof Facts, z.ZodType<AnyFact>> =>
  FACT_KINDS[kind] as unknown as FactKindOf<FactKind, keyof Facts, z.ZodType<AnyFact>>

/** The id of the fact that one hangs on, or null. */
export function ownerIdOf(kind: FactKind, fact: AnyFact): string | null {
  const { owner } = kindOf(kind)
  return owner && ((fact as Record<string, unknown>)[owner.field] as string)
}

type CollectionSchemas = {
  [K in FactKind as Kinds[K]['collection']]: z.ZodDefault<z.ZodRecord<typeof factId, Kinds[K]['schema']>>
}
export const factsSchema = z.strictObject(
  Object.fromEntries(
    factKinds.map((kind) => [kindOf(kind).collection, z.record(factId, kindOf(kind).schema).default({})]),
  ) as unknown as CollectionSchemas,
)

export const noFacts = (): Facts =>
  Object.fromEntries(factKinds.map((kind) => [kindOf(kind).collection, {}])) as unknown as Facts

type BodySchema<K extends FactKind> = z.ZodObject<{ kind: z.ZodLiteral<K>; fact: Kinds[K]['schema'] }, z.core.$strict>
/** One schema a kind for the bodies of messages, to be told apart by `kind`. */
export const factBodies = factKinds.map((kind) =>
  z.strictObject({ kind: z.literal(kind), fact: kindOf(kind).schema }),
) as unknown as { [I in 0]: never } & BodySchema<FactKind>[]
