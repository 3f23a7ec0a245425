import * as z from 'zod'
import { MOST_CORES } from '../record'
import { accepted, parseWith, refusal, refused, type Outcome } from '../refusal'
import { wantsKnown, type UnknownCable } from './cable'

const end = z
  .int()
  .min(1)
  .max(MOST_CORES + 1)
const groups = z.array(z.array(end).min(1))
const touching = z.tuple([end, end]).nullable()
const cableFile = z.strictObject({
  cores: z.int().min(2).max(MOST_CORES),
  bare: z.strictObject({ first: touching, second: touching }).nullable().default(null),
  walks: z
    .array(z.strictObject({ joinedAt: z.enum(['first', 'second']), joined: groups, seen: groups }))
    .max(20)
    .default([]),
})

/**
 * What was joined and seen on a cable, from the text of its file: ends numbered from 1 as they lie at each side; for 2,
 * 5 and 9 cores the known conductor that goes along has the number after the last.
 */
export function readCable(text: string): Outcome<UnknownCable> {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    return refused(refusal('cable_not_json'))
  }
  const parsed = parseWith(cableFile, json)
  if (!parsed.ok) return parsed
  const { cores, bare, walks } = parsed.value
  const helped = wantsKnown(cores)
  const count = cores + Number(helped)
  const left = (pair: readonly number[] | null) =>
    Array.from({ length: count }, (_, i) => i + 1).filter((e) => !pair?.includes(e))
  const wrong = walks.flatMap((walk, i) =>
    (['joined', 'seen'] as const).flatMap((side) => {
      const at = (side === 'joined') === (walk.joinedAt === 'first') ? 'first' : 'second'
      const there = walk[side].flat()
      // Two that touch are left out, or go along as one.
      const twice = there.find((e, k) => there.indexOf(e) !== k || e > count)
      const gone = left(bare?.[at] ?? null).find((e) => !there.includes(e))
      const bad = twice ?? gone
      return bad === undefined ? [] : [refusal('cable_ends', ['walks', i, side], { end: bad, count })]
    }),
  )
  if (wrong.length > 0) return refused(...wrong)
  const fromZero = (list: readonly (readonly number[])[]) => list.map((g) => g.map((e) => e - 1))
  const pair = (p: readonly [number, number] | null): readonly [number, number] | null => p && [p[0] - 1, p[1] - 1]
  return accepted({
    cores,
    helped,
    bare: bare && { first: pair(bare.first), second: pair(bare.second) },
    walks: walks.map((w) => ({ joinedAt: w.joinedAt, joined: fromZero(w.joined), seen: fromZero(w.seen) })),
  })
}
