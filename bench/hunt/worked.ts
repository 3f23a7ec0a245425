import type { OddsBasis } from '../../core/hunt'
import type { FieldTest, ReadingValue } from '../../core/record'
import type { Believed } from './calibration'
import { Clock, WRONG_min } from './crew'
import { METER, placesOf, type Case } from './draw'
import type { Said } from './engine'
import { outward, type Ended } from './outward'
import type { Engine } from './process'

const watered = (c: Case, left: Case['faults']) =>
  new Map(
    c
      .symptoms(left)
      .map(({ test, value }) => [(test as Extract<FieldTest, { kind: 'water' }>).at.terminal, value] as const),
  )
export interface Outcome {
  found: string[]
  wrong: string[]
  ended: 'nothing' | 'undecided' | 'wrong'
  minutes: number
  readings: number
}
export interface Hunted extends Outcome {
  /** Where it ended undecided: by how much any test that was left would have moved a belief, at most. */
  moved: number | null
  believed: Believed[]
  first_s: number
  next_s: number[]
  log: string[]
  size: Said['size']
}

/** Tests that are tried once a hunt says that it is undecided. */
const MOST_TRIED = 60
/** By how much any of the tests that are left would move a part's belief, as they would be answered. */
async function mostMoved(said: Said, engine: Engine, answer: (test: FieldTest) => ReadingValue): Promise<number> {
  const step = Math.max(1, said.left.length / MOST_TRIED)
  let most = 0
  for (let n = 0; n < said.left.length; n += step) {
    const test = said.left[Math.floor(n)]!
    const then = new Map((await engine.ask({ do: 'try', reading: { test, value: answer(test) } })).parts)
    const now = new Map(said.parts)
    for (const key of new Set([...now.keys(), ...then.keys()]))
      most = Math.max(most, Math.abs((now.get(key) ?? 0) - (then.get(key) ?? 0)))
  }
  return most
}

/**
 * A case to its end: what is named is mended and retested until nothing is left; a wrong name or none is searched to
 * the end. `tried`: of a hunt that ends undecided all that is left is tried, to see whether anything would have told.
 */
export async function hunted(c: Case, engine: Engine, odds: OddsBasis, { tried } = { tried: true }): Promise<Hunted> {
  const clock = new Clock(c.record)
  let left = c.faults.map((f, i) => ({ f, key: c.truth[i]! }))
  let field = c.field(left.map((l) => l.f))
  const symptoms = () => c.symptoms(left.map((l) => l.f))
  const out: Hunted = {
    found: [],
    wrong: [],
    ended: 'undecided',
    minutes: 0,
    readings: 0,
    believed: [],
    first_s: 0,
    next_s: [],
    log: [],
    moved: null,
    size: { faults: 0, variants: 0 },
  }
  let said = await engine.ask({
    do: 'begin',
    site: c.record,
    known: c.known,
    symptoms: symptoms(),
    options: { odds },
  })
  out.size = said.size
  out.first_s = said.next_s
  for (;;) {
    const there = new Set(left.map((l) => l.key))
    for (const [key, p] of said.parts) out.believed.push({ p, there: there.has(key), of: c.seed })
    out.believed.push({ p: said.nothing, there: left.length === 0, of: c.seed })
    const { stand } = said
    if (stand.kind === 'open') {
      if (out.readings > 400) {
        out.ended = 'undecided'
        break
      }
      clock.test(stand.test)
      out.readings++
      const value = field.answer(stand.test, METER)
      out.log.push(
        `${stand.test.kind} ${JSON.stringify(stand.test).slice(0, 150)} ${JSON.stringify(value)} top ${[...said.parts]
          .sort((a, b) => b[1] - a[1])
          .slice(0, 4)
          .map(([k, p]) => `${k} ${p.toFixed(3)}`)
          .join(' | ')} nothing ${said.nothing.toFixed(3)}`,
      )
      said = await engine.ask({ do: 'take', reading: { test: stand.test, value } })
      out.next_s.push(said.next_s)
      continue
    }
    if (stand.kind === 'named') {
      out.log.push(`NAMED ${stand.key} ${stand.p.toFixed(4)}`)
      if (!there.has(stand.key)) {
        out.wrong.push(stand.key)
        out.ended = 'wrong'
        clock.minutes += WRONG_min
        break
      }
      out.found.push(stand.key)
      left = left.filter((l) => l.key !== stand.key)
      field = c.field(left.map((l) => l.f))
      clock.afresh()
      said = await engine.ask({ do: 'mended', key: stand.key, symptoms: symptoms() })
      continue
    }
    out.log.push(
      stand.kind +
        ' ' +
        [...said.parts]
          .sort((a, b) => b[1] - a[1])
          .slice(0, 4)
          .map(([k, p]) => `${k} ${p.toFixed(3)}`)
          .join(' | ') +
        ' nothing ' +
        said.nothing.toFixed(3),
    )
    out.ended = stand.kind
    if (tried && stand.kind === 'undecided')
      out.moved = await mostMoved(said, engine, (test) => field.answer(test, METER))
    break
  }
  if (left.length > 0) for (const l of left) clock.searchTo(placesOf(c.site, l.key))
  else if (out.ended === 'undecided') clock.searchTo([])
  out.minutes = clock.minutes
  return out
}

/** The same case by the procedure that hunts are measured against. */
export function byProcedure(c: Case): Outcome {
  const clock = new Clock(c.record)
  let left = c.faults.map((f, i) => ({ f, key: c.truth[i]! }))
  const out: Outcome = { found: [], wrong: [], ended: 'undecided', minutes: 0, readings: 0 }
  for (;;) {
    const field = c.field(left.map((l) => l.f))
    const end: Ended = outward(
      c.record,
      watered(
        c,
        left.map((l) => l.f),
      ),
      {
        ask: (test: FieldTest): ReadingValue => {
          clock.test(test)
          out.readings++
          return field.answer(test, METER)
        },
      },
    )
    if (end.kind !== 'named') {
      out.ended = end.kind
      break
    }
    if (!left.some((l) => l.key === end.key)) {
      out.wrong.push(end.key)
      out.ended = 'wrong'
      clock.minutes += WRONG_min
      break
    }
    out.found.push(end.key)
    left = left.filter((l) => l.key !== end.key)
    clock.afresh()
  }
  for (const l of left) clock.searchTo(placesOf(c.site, l.key))
  out.minutes = clock.minutes
  return out
}
