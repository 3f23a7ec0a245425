import { huntOf, type Hunt, type HuntOptions, type Known, type Stand, type Observation } from '../../core/hunt'
import { COMMON_METER, testKey, type FieldTest } from '../../core/record'
import type { ControllerId, Site } from '../../core/site'

/** What the answering side says to the engine, one at a time; each is answered by `Said`. */
export type Ask =
  | {
      readonly do: 'begin'
      readonly site: Site
      readonly known: readonly Known[]
      readonly symptoms: readonly Observation[]
      readonly options: Partial<HuntOptions>
    }
  | { readonly do: 'take'; readonly reading: Observation }
  | { readonly do: 'mended'; readonly key: string; readonly symptoms: readonly Observation[] }
  /** What would be believed with one more reading; the hunt itself stays where it is. */
  | { readonly do: 'try'; readonly reading: Observation }
export interface Said {
  readonly stand: Exclude<Stand, { kind: 'open' }> | { readonly kind: 'open'; readonly test: FieldTest }
  readonly parts: readonly (readonly [string, number])[]
  readonly nothing: number
  readonly next_s: number
  /** Where the hunt is undecided: every test that was not made. */
  readonly left: readonly FieldTest[]
  readonly size: { faults: number; variants: number }
}

// The engine's side of the bench, in a process of its own: it gets the record and the readings, and nothing else.
let hunt: Hunt
let asked: Exclude<Ask, { do: 'try' }>[] = []
function follow(now: Hunt, ask: Ask): Hunt {
  switch (ask.do) {
    case 'begin': {
      const begun = huntOf(ask.site, 'A' as ControllerId, { meter: COMMON_METER, known: ask.known, ...ask.options })!
      for (const s of ask.symptoms) begun.take(s)
      return begun
    }
    case 'mended':
      now.mended(now.part(ask.key))
      for (const s of ask.symptoms) now.take(s)
      return now
    default:
      now.take(ask.reading)
      return now
  }
}
/** Tests that could still be made. */
function testsLeft(of: Hunt): FieldTest[] {
  const made = new Set(of.counted().map(testKey))
  return of.candidates.flatMap(({ test }) => (made.has(testKey(test)) ? [] : [test]))
}
process.on('message', (ask: Ask) => {
  const start = performance.now()
  if (ask.do === 'begin') asked = []
  let of = hunt
  if (ask.do === 'try') for (const before of [...asked, ask]) of = follow(of, before)
  else {
    asked.push(ask)
    of = hunt = follow(hunt, ask)
  }
  const b = of.beliefs()
  const stand: Stand = ask.do === 'try' ? { kind: 'undecided' } : of.stand()
  const said: Said = {
    stand: stand.kind === 'open' ? { kind: 'open', test: stand.next.candidate.test } : stand,
    parts: [...b.parts].filter(([, p]) => p > 1e-3),
    nothing: b.nothing,
    next_s: (performance.now() - start) / 1000,
    left: stand.kind === 'undecided' ? testsLeft(of) : [],
    size: { faults: hunt.catalogue.faults.length, variants: hunt.catalogue.variants.length },
  }
  process.send!(said)
})
