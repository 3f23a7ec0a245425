import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import { demoProperty } from '../../demo/quarry-lake'
import { factKinds, kindOf, noFacts, SCHEMA_VERSION, type AnyFact, type FactKind } from '../record'
import { byKey } from './canonical'
import { contextOf, propertyPieces, readHead, readParts, readProperty, writeProperty, type Property } from './index'

const repo = (path: string) => readFileSync(join(__dirname, '../..', path), 'utf8')

/** A text as it might come over a thin line: in pieces cut anywhere, within characters too. */
async function* inPieces(text: string, size: number): AsyncGenerator<Uint8Array> {
  const bytes = Buffer.from(text)
  for (let at = 0; at < bytes.length; at += size) yield await Promise.resolve(bytes.subarray(at, at + size))
}

/** Reads a file the streaming way, into what the plain reader gives. */
async function streamed(text: string, size = 1013): Promise<ReturnType<typeof readProperty>> {
  const head = await readHead(inPieces(text, size))
  if (!head.ok) return head
  const { version: _version, beside: _beside, ...rest } = head.value
  const facts = noFacts() as Record<string, Record<string, AnyFact>>
  const [snapshots, steps] = [[] as unknown[], [] as unknown[]]
  for await (const part of readParts(inPieces(text, size), head.value, contextOf(rest.site, rest.revision))) {
    if (!part.ok) return part
    if (part.value.kind === 'fact') facts[kindOf(part.value.of).collection]![part.value.id] = part.value.fact
    else if (part.value.kind === 'step') steps.push(part.value.step)
    else snapshots.push(part.value.snapshot)
  }
  const journal = snapshots.length > 0 ? { journal: { snapshots, steps } } : {}
  return { ok: true, value: { ...rest, facts, ...journal } as unknown as Property }
}

async function written({ journal, facts, ...rest }: Property): Promise<string> {
  const list = async function* <T>(all: readonly T[]) {
    for (let at = 0; at < all.length; at += 7) yield await Promise.resolve(all.slice(at, at + 7))
  }
  const ofKind = (kind: FactKind) =>
    list(Object.entries(facts[kindOf(kind).collection] as Record<string, AnyFact>).sort(([a], [b]) => byKey(a, b)))
  const past = journal && { snapshots: list(journal.snapshots), steps: list(journal.steps) }
  let text = ''
  for await (const piece of propertyPieces({ ...rest, facts: ofKind, ...(past ? { journal: past } : {}) }))
    text += piece
  return text
}

const demo = demoProperty()
const withPast: Property = {
  ...demo,
  revision: 1,
  journal: {
    snapshots: [{ revision: 0, schema: SCHEMA_VERSION, site: demo.site }],
    steps: [
      {
        id: '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b11',
        revision: 1,
        author: 'Jo',
        device: 'd',
        at: '2026-04-11T10:00:00.000Z',
        undoes: null,
        schema: SCHEMA_VERSION,
        commands: [{ do: 'setAbout', field: 'contractor', value: 'x' }],
        writes: [{ path: ['about', 'contractor'], before: '', after: 'x' }],
      },
    ],
  },
}

test('in pieces or whole: the same bytes written, the same property read, past and all, however the text is cut', async () => {
  for (const property of [demo, withPast, { ...demo, facts: noFacts() }]) {
    const text = writeProperty(property)
    expect(await written(property)).toBe(text)
    for (const size of [97, 4096, 1e6]) expect(await streamed(text, size)).toEqual(readProperty(text))
  }
  for (const version of [1, 2, 3, 4, 5, 6, 7]) {
    const kept = repo(`tests/kept/property-v${version}.json`)
    expect(await streamed(kept)).toEqual(readProperty(kept))
  }
  expect(await streamed(`\uFEFF${writeProperty(demo)}`)).toEqual(readProperty(writeProperty(demo)))
  expect(factKinds.every((kind) => kindOf(kind).kind === kind)).toBe(true)
})

test('a broken file is refused alike in pieces and whole: by its first code, with its place', async () => {
  const text = writeProperty(demo)
  const broken = [
    '',
    '[]',
    '{"format":',
    text.slice(0, 5000),
    `${text} {}`,
    text.replace('"id": "0198', '"identity": "0198'),
    text.replace(`"version": ${SCHEMA_VERSION}`, '"version": 99'),
    text.replace('"ground_C": ', '"ground_C": "warm", "x": '),
    text.replace('"revision": 0', '"revision": 2147483648'),
    text.replace(/"controller": "A"(?![\s\S]*"controller": "A")/, '"controller": "Q"'), // the last one: a visit's
    text.replace('"name": "Gatehouse"', '"__proto__": {"a": 1}, "name": "Gatehouse"'),
    text.replace('"readings": {', '"readings": { "__proto__": {},'),
    text.replace('"readings": {', '"readings": { "a b": {},'),
  ]
  for (const bad of broken) {
    const [plain, piecewise] = [readProperty(bad), await streamed(bad)]
    expect([piecewise.ok, broken.indexOf(bad)]).toEqual([false, broken.indexOf(bad)])
    if (plain.ok || piecewise.ok) continue
    expect(plain.refusals.map((r) => r.code)).toContain(piecewise.refusals[0]!.code)
  }
})

test('what is no text of ours, in any pieces, ends in a refusal and never throws', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.string({ maxLength: 60, unit: fc.constantFrom(...'{}[]":,\\u0019e-"ab \n'.split('')) }),
      async (text) => {
        expect((await streamed(text, 3)).ok).toBe(false)
      },
    ),
    { seed: 8, numRuns: 400 },
  )
})
