import * as z from 'zod'
import { parseWith, pathText } from './index'

const schema = z.strictObject({
  name: z.string().min(2),
  count: z.int().min(1).max(9),
  kind: z.enum(['a', 'b']),
  list: z.array(z.strictObject({ at: z.number() })).max(2),
  either: z.union([z.strictObject({ awg: z.int() }), z.strictObject({ area: z.number().positive() })]),
  keyed: z.record(z.string().regex(/^[a-z]+$/), z.boolean()),
})
const good = { name: 'ab', count: 3, kind: 'a', list: [{ at: 1 }], either: { awg: 18 }, keyed: { x: true } }
const codes = (change: Record<string, unknown>) => {
  const parsed = parseWith(schema, { ...good, ...change }, ['here'])
  return parsed.ok ? [] : parsed.refusals.map((r) => `${r.code} ${pathText(r.path)}`)
}

test.each<[string, Record<string, unknown>, string[]]>([
  ['nothing wrong', {}, []],
  ['a field left out', { name: undefined }, ['missing here.name']],
  ['a wrong kind', { count: '3' }, ['wrong_type here.count']],
  ['null is a kind of its own', { count: null }, ['wrong_type here.count']],
  ['too small and too large', { name: 'a', count: 10 }, ['too_small here.name', 'too_big here.count']],
  ['a word that is not known', { kind: 'c' }, ['not_one_of here.kind']],
  ['a field too many, by its own name', { list: [{ at: 1, by: 2 }] }, ['unknown_field here.list[0].by']],
  ['deep inside a list', { list: [{ at: 1 }, { at: 'x' }] }, ['wrong_type here.list[1].at']],
  ['of a union the branch that was meant', { either: { area: -1 } }, ['too_small here.either.area']],
  ['a union that is nothing', { either: undefined }, ['missing here.either']],
  ['a key that cannot be one', { keyed: { 'X 1': true } }, ['bad_key here.keyed.X 1']],
])('%s', (_, change, expected) => expect(codes(change)).toEqual(expected))

test('a document wrong in hundreds of places gets the first twenty', () => {
  const parsed = parseWith(z.array(z.number()), new Array(300).fill('x'))
  expect(parsed.ok ? 0 : parsed.refusals.length).toBe(20)
})

test('what hides in prototypes is no value', () => {
  expect(codes(JSON.parse('{"name":"ab","__proto__":{"count":3}}') as Record<string, unknown>)).toEqual([
    'unknown_field here.__proto__',
  ])
  const bare = parseWith(z.strictObject({ toString: z.string() }), {})
  expect(bare.ok ? [] : bare.refusals.map((r) => r.code)).toEqual(['missing'])
})
