import {
  factId as factKey,
  factKinds,
  kindOf,
  revisionNumber,
  SCHEMA_VERSION,
  uuid,
  type AnyFact,
  type FactContext,
  type FactKind,
} from '../record'
import { accepted, parseWith, refusal, refused, type Outcome, type Path, type Refusal } from '../refusal'
import { siteSchema, type Site } from '../site'
import { pathOfProto } from './hidden-key'
import { journalStep, snapshot, type JournalStep, type Snapshot } from './journal'
import { jsonPieces, JsonTrouble, type JsonPiece } from './json-pieces'
import { MOST_PIECE_BYTES } from './limits'
import { brokenSite } from './site-file'
import { huntShownBy, type BeforeJobs, type Lifted } from './lifts/jobs'
import { fileVersion, liftFact, liftSite } from './upgrade'

type Chunks = AsyncIterable<Uint8Array>

/** What a property's file says before its facts. */
export interface PropertyHead {
  readonly version: number
  readonly id: string
  readonly revision: number
  readonly site: Site
  /** What the facts of an earlier version are read by. */
  readonly beside: BeforeJobs
}

/** A part of a property's file, checked. */
export type PropertyPart =
  | { readonly kind: 'fact'; readonly of: FactKind; readonly id: string; readonly fact: AnyFact }
  | { readonly kind: 'snapshot'; readonly snapshot: Snapshot }
  | { readonly kind: 'step'; readonly step: JournalStep }

const HEAD_KEYS = ['format', 'version', 'id', 'revision', 'site']
const KIND_OF_COLLECTION = new Map(factKinds.map((kind): [string, FactKind] => [kindOf(kind).collection, kind]))
const KEYS: ReadonlySet<string> = new Set([...HEAD_KEYS, ...KIND_OF_COLLECTION.keys(), 'journal'])
const PATHS = [
  ...HEAD_KEYS.map((key) => `$.${key}`),
  ...[...KIND_OF_COLLECTION.keys()].map((collection) => `$.${collection}.*`),
  '$.journal.snapshots.*',
  '$.journal.steps.*',
]

const piecesOf = (chunks: Chunks) => jsonPieces(chunks, PATHS, KEYS, MOST_PIECE_BYTES)

/** The head of a file, wherever in it its parts stand; the rest is gone through and let go. */
export async function readHead(chunks: Chunks): Promise<Outcome<PropertyHead>> {
  const head = new Map<string, unknown>()
  const hunts = new Set<string>()
  try {
    for await (const { path, value } of piecesOf(chunks)) {
      const kind = KIND_OF_COLLECTION.get(path[0]!)
      const hunt = kind ? huntShownBy(kind, value) : null
      if (path.length === 1) head.set(path[0]!, value)
      else if (hunt !== null) hunts.add(hunt)
    }
  } catch (error) {
    return refused(fromTrouble(error))
  }
  const version = fileVersion(head.get('format'), head.get('version'))
  if (!version.ok) return version
  const hidden = protoIn(head.get('site'), ['site'])
  if (hidden.length > 0) return refused(...hidden)
  const id = parseWith(uuid, head.get('id'), ['id'])
  const revision = parseWith(revisionNumber, head.get('revision'), ['revision'])
  const site = parseWith(siteSchema, liftSite(version.value, head.get('site')), ['site'])
  const outcomes = [id, revision, site]
  if (!id.ok || !revision.ok || !site.ok) return refused(...outcomes.flatMap((o) => (o.ok ? [] : o.refusals)))
  const broken = brokenSite(site.value)
  return broken.length > 0
    ? refused(...broken.slice(0, 20))
    : accepted({
        version: version.value,
        id: id.value,
        revision: revision.value,
        site: site.value,
        beside: { site: site.value, isHunt: (visit) => hunts.has(visit) },
      })
}

/**
 * The parts of a file after its head, each checked by itself; what hangs on what is left to whoever stores them.
 * Ends with the first part that is refused.
 */
export async function* readParts(
  chunks: Chunks,
  head: Upgrade,
  context: FactContext,
): AsyncGenerator<Outcome<PropertyPart>> {
  try {
    for await (const piece of piecesOf(chunks)) {
      if (piece.path.length === 1) continue
      for (const part of partsOf(piece, head, context)) {
        yield part
        if (!part.ok) return
      }
    }
  } catch (error) {
    yield refused(fromTrouble(error))
  }
}

type Upgrade = Pick<PropertyHead, 'version' | 'beside'>

function partsOf({ path, value }: JsonPiece, upgrade: Upgrade, context: FactContext): Outcome<PropertyPart>[] {
  const proto = protoIn(value, path)
  if (proto.length > 0) return [refused(...proto)]
  const [first, second] = path as [string, string]
  const kind = KIND_OF_COLLECTION.get(first)
  if (kind)
    return liftFact(upgrade.version, kind, second, value, upgrade.beside).map((lifted) => factOf(lifted, context))
  return [pastOf(path, value, context)]
}

function pastOf(path: Path, value: unknown, context: FactContext): Outcome<PropertyPart> {
  const second = path[1]
  const stored = value as { schema?: unknown; site?: unknown } | null
  if (second === 'steps') {
    const step = parseWith(journalStep, value, path)
    if (!step.ok) return step
    const { revision } = step.value
    return revision > context.revision
      ? refused(refusal('reading_ahead', [...path, 'revision'], { revision, latest: context.revision }))
      : accepted({ kind: 'step', step: step.value })
  }
  const written = typeof stored?.schema === 'number' ? stored.schema : SCHEMA_VERSION
  const lifted =
    typeof value === 'object' && value !== null ? { ...value, site: liftSite(written, stored?.site) } : value
  const parsed = parseWith(snapshot, lifted, path)
  return parsed.ok ? accepted({ kind: 'snapshot', snapshot: { ...parsed.value, schema: SCHEMA_VERSION } }) : parsed
}

function factOf({ kind, id, fact: value }: Lifted, context: FactContext): Outcome<PropertyPart> {
  const { collection, schema, misfit } = kindOf(kind)
  const path = [collection, id]
  const key = parseWith(factKey, id)
  if (!key.ok) return refused(refusal('bad_key', path, { key: id }))
  const fact = parseWith(schema, value, path)
  if (!fact.ok) return fact
  const wrong = misfit(fact.value, context)
  return wrong
    ? refused({ ...wrong, path: [...path, ...wrong.path] })
    : accepted({ kind: 'fact', of: kind, id, fact: fact.value })
}

/** A key that readers would pass over in silence is refused by name. */
function protoIn(value: unknown, path: Path): Refusal[] {
  const within = path.at(-1) === '__proto__' ? [] : pathOfProto(value)
  return within ? [refusal('bad_key', [...path, ...within], { key: '__proto__' })] : []
}

function fromTrouble(error: unknown): Refusal {
  if (!(error instanceof JsonTrouble)) throw error
  switch (error.code) {
    case 'not_json':
      return refusal('not_json', [], { line: Number(error.detail) })
    case 'unknown_field':
      return refusal('unknown_field', [String(error.detail)], { field: String(error.detail) })
    case 'too_large':
      return refusal('piece_too_large', [], { limit: Math.round(Number(error.detail) / 1e6) })
    case 'empty_file':
      return refusal('empty_file')
  }
}
