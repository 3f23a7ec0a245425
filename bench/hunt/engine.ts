import { huntOf, type Hunt, type HuntOptions, type Known, type Stand, type Observation } from '../../core/hunt'
import { COMMON_METER, type FieldTest } from '../../core/record'
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
export interface Said {
  readonly stand: Exclude<Stand, { kind: 'open' }> | { readonly kind: 'open'; readonly test: FieldTest }
  readonly parts: readonly (readonly [string, number])[]
  readonly nothing: number
  readonly next_s: number
  readonly size: { faults: number; variants: number }
}

// The engine's side of the bench, in a process of its own: it gets the record and the readings, and nothing else.
let hunt: Hunt
process.on('message', (ask: Ask) => {
  const start = performance.now()
  if (ask.do === 'begin') {
    hunt = huntOf(ask.site, 'A' as ControllerId, { meter: COMMON_METER, known: ask.known, ...ask.options })!
    for (const s of ask.symptoms) hunt.take(s)
  } else if (ask.do === 'take') hunt.take(ask.reading)
  else {
    hunt.mended(hunt.part(ask.key))
    for (const s of ask.symptoms) hunt.take(s)
  }
  const b = hunt.beliefs()
  const stand = hunt.stand()
  const said: Said = {
    stand: stand.kind === 'open' ? { kind: 'open', test: stand.next.candidate.test } : stand,
    parts: [...b.parts].filter(([, p]) => p > 1e-3),
    nothing: b.nothing,
    next_s: (performance.now() - start) / 1000,
    size: { faults: hunt.catalogue.faults.length, variants: hunt.catalogue.variants.length },
  }
  process.send!(said)
})
