import { factKinds, kindOf, SCHEMA_VERSION, type AnyFact, type FactKind } from '../record'
import type { Site } from '../site'
import { canonicalPart } from './canonical'
import type { JournalStep, Snapshot } from './journal'
import { FORMAT_NAME } from './upgrade'

/** A property as it lies in a database: what is long comes in lists, one after the other. */
export interface StoredProperty {
  /** The version it was written with, where that is not the present one. */
  readonly version?: number
  readonly id: string
  readonly revision: number
  readonly site: Site
  /** Facts of a kind, ids in the order of `byKey`. */
  readonly facts: (kind: FactKind) => AsyncIterable<readonly (readonly [id: string, fact: AnyFact])[]>
  /** Left out where the file does without its past. */
  readonly journal?: {
    readonly snapshots: AsyncIterable<readonly Snapshot[]>
    readonly steps: AsyncIterable<readonly JournalStep[]>
  }
}

/** The text of a property's file piece by piece: joined, the same bytes as `writeProperty` gives for the whole. */
export async function* propertyPieces({
  version = SCHEMA_VERSION,
  id,
  revision,
  site,
  facts,
  journal,
}: StoredProperty): AsyncGenerator<string> {
  const parts: [key: string, pieces: () => AsyncIterable<string>][] = [
    ['format', () => single(FORMAT_NAME)],
    ['version', () => single(version)],
    ['id', () => single(id)],
    ['revision', () => single(revision)],
    ['site', () => single(site)],
    ...factKinds.map((kind): [string, () => AsyncIterable<string>] => [
      kindOf(kind).collection,
      () => listed('{', '}', '  ', entriesOf(facts(kind))),
    ]),
    ...(journal ? [['journal', () => journalPieces(journal)] as [string, () => AsyncIterable<string>]] : []),
  ]
  let before = '{\n'
  for (const [key, pieces] of parts.sort(([a], [b]) => (a < b ? -1 : 1))) {
    yield `${before}  ${JSON.stringify(key)}: `
    yield* pieces()
    before = ',\n'
  }
  yield '\n}\n'
}

async function* single(value: unknown): AsyncGenerator<string> {
  yield canonicalPart(value, '  ')
}

async function* entriesOf(lists: AsyncIterable<readonly (readonly [string, AnyFact])[]>): AsyncGenerator<string[]> {
  for await (const list of lists)
    yield list.map(([id, fact]) => `${JSON.stringify(id)}: ${canonicalPart(fact, '    ')}`)
}

async function* journalPieces({ snapshots, steps }: NonNullable<StoredProperty['journal']>): AsyncGenerator<string> {
  yield '{\n    "snapshots": '
  yield* listed('[', ']', '    ', itemsOf(snapshots))
  yield ',\n    "steps": '
  yield* listed('[', ']', '    ', itemsOf(steps))
  yield '\n  }'
}

async function* itemsOf(lists: AsyncIterable<readonly unknown[]>): AsyncGenerator<string[]> {
  for await (const list of lists) yield list.map((item) => canonicalPart(item, '      '))
}

/** What stands between two brackets, a line an item. */
async function* listed(
  open: string,
  close: string,
  indent: string,
  lists: AsyncIterable<readonly string[]>,
): AsyncGenerator<string> {
  let any = false
  for await (const list of lists) {
    if (list.length === 0) continue
    yield `${any ? ',' : open}\n${indent}  ${list.join(`,\n${indent}  `)}`
    any = true
  }
  yield any ? `\n${indent}${close}` : `${open}${close}`
}
