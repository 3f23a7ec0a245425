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
function follow(ask: Exclude<Ask, { do: 'try' }>): void {
  switch (ask.do) {
    case 'begin':
      hunt = huntOf(ask.site, 'A' as ControllerId, { meter: COMMON_METER, known: ask.known, ...ask.options })!
      for (const s of ask.symptoms) hunt.take(s)
      return
    case 'mended':
      hunt.mended(hunt.part(ask.key))
      for (const s of ask.symptoms) hunt.take(s)
      return
    case 'take':
      hunt.take(ask.reading)
  }
}
/** Tests that could still be made. */
function testsLeft(): FieldTest[] {
  const made = new Set(hunt.counted().map(testKey))
  return hunt.candidates.flatMap(({ test }) => (made.has(testKey(test)) ? [] : [test]))
}
process.on('message', (ask: Ask) => {
  const start = performance.now()
  if (ask.do !== 'try') follow(ask)
  const b = ask.do === 'try' ? hunt.beliefsWith(ask.reading) : hunt.beliefs()
  const stand: Stand = ask.do === 'try' ? { kind: 'undecided' } : hunt.stand()
  const said: Said = {
    stand: stand.kind === 'open' ? { kind: 'open', test: stand.next.candidate.test } : stand,
    parts: [...b.parts].filter(([, p]) => p > 1e-3),
    nothing: b.nothing,
    next_s: (performance.now() - start) / 1000,
    left: stand.kind === 'undecided' ? testsLeft() : [],
    size: { faults: hunt.catalogue.faults.length, variants: hunt.catalogue.variants.length },
  }
  process.send!(said)
})
