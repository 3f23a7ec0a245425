import type * as z from 'zod'
import {
  bestTags,
  coresKnown,
  groupPlan,
  methodTimes,
  nextJoining,
  readCable,
  STOCK_ohm,
  USUAL_TAGS,
  wantsKnown,
  type UnknownCable,
} from '../core/cores'
import { accepted, refusal, refused, type Outcome } from '../core/refusal'
import type { Arguments } from './flags'
import type { coresOutput } from './output'

type Out = z.infer<typeof coresOutput>

/**
 * The plan for so many cores, how long each way takes, the tags; with a file of what was joined and seen also which
 * core is which, and what to join next.
 */
export function coresOf(text: string | null, flags: Arguments['flags']): Outcome<Out> {
  const cable = text === null ? null : readCable(text)
  if (cable && !cable.ok) return cable
  const cores = cable?.value.cores ?? flags.n
  if (cores === undefined || !Number.isInteger(cores)) return refused(refusal('how_many_cores', ['--n']))
  const plan = groupPlan(cores)
  return accepted({
    verb: 'cores',
    n: cores,
    cores: plan.cores.map((c) => ({ ...c })),
    known: plan.known,
    methods: methodTimes({ cores, walk_min: flags.walk, people: flags.helper ? 2 : 1 }).map((m) => ({ ...m })),
    tags: bestTags(STOCK_ohm, USUAL_TAGS).map((t) => ({ ...t })),
    ...(cable ? { found: foundOut(cable.value) } : {}),
    ...nextOut(cable?.value ?? { cores, helped: wantsKnown(cores), bare: null, walks: [] }),
  })
}

/** Ends as people number them. */
const fromOne = (list: readonly (readonly number[])[]) => list.map((g) => g.map((e) => e + 1))
const one = (end: number | null) => (end === null ? null : end + 1)

function foundOut(cable: UnknownCable): NonNullable<Out['found']> {
  const { named, broken, touching, touchingOnce, unnamed, impossible } = coresKnown(cable)
  return {
    named: named.map((m) => ({ first: m.first + 1, second: m.second + 1 })),
    broken: broken && { first: one(broken.first), second: one(broken.second) },
    touching: touching && { first: fromOne([touching.first])[0]!, second: fromOne([touching.second])[0]! },
    touchingOnce,
    unnamed: { first: unnamed.first.map((e) => e + 1), second: unnamed.second.map((e) => e + 1) },
    impossible,
  }
}

function nextOut(cable: UnknownCable): Pick<Out, 'next'> {
  const next = nextJoining(cable)
  return { next: next && { at: next.at, groups: fromOne(next.groups) } }
}

/** Groups at one end as lines: those of one are left loose. */
const groupLines = (groups: readonly (readonly number[])[]) =>
  groups.filter((g) => g.length > 1).map((g) => `  join ${g.join(', ')}`)

/** The same as lines for a person. */
export function coresLines({ cores, known, methods, found, next }: Out): string[] {
  return [
    ...methods.map(
      (m) => `${m.method.padEnd(7)} ${m.minutes === null ? 'wants a helper' : `${Math.round(m.minutes)} min`}`,
    ),
    ...(known > 0 ? [`One known conductor goes along as number ${cores.length}.`] : []),
    ...(found
      ? [
          '',
          ...found.named.map((m) => `${String(m.first).padStart(4)} is ${m.second}`),
          ...(found.touching
            ? [`${found.touching.first.join(' and ')} touch: ${found.touching.second.join(' and ')}`]
            : []),
          ...(found.broken ? [`broken: ${found.broken.first ?? '?'} and ${found.broken.second ?? '?'}`] : []),
          ...(found.impossible
            ? ['This cannot be so: something was joined or read otherwise than it is written.']
            : []),
        ]
      : []),
    ...(next ? ['', `At the ${next.at} end:`, ...groupLines(next.groups)] : []),
  ]
}
