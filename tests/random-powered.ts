import {
  climateOf,
  closings,
  conditionsFor,
  engineOf,
  poweredOf,
  runningOf,
  type Edit,
  type Engine,
  type Frequency,
  type TerminalAt,
  type Told,
} from '../core/circuit'
import type { ControllerId, Site, TerminalId } from '../core/site'
import { randomSite, seeded } from './random-site'

export interface PoweredCase {
  readonly site: Site
  readonly engine: Engine
  readonly edits: readonly Edit[]
  readonly title: string
}

/**
 * A made-up property under power: some stations on, alternating or direct current, and none to three faults of any
 * kind.
 */
export function poweredCase(seed: number): PoweredCase {
  const random = seeded(seed * 7919 + 13)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const { site: plain, stations } = randomSite(seed)
  const coilKinds = Object.fromEntries(
    Object.entries(plain.coilKinds).map(([id, k]) => [
      id,
      {
        ...k,
        inrush_A: (13 / k.resistance_ohm) * (0.8 + 0.2 * random()),
        holding_A: 7.6 / k.resistance_ohm,
        inrush_pf: random() < 0.2 ? 0.8 : null,
      },
    ]),
  )
  const site = {
    ...plain,
    coilKinds,
    settings: { ...plain.settings, ground_C: Math.round(random() * 40), V_open_V: 26 + 2 * random() },
  } as Site
  const at = (tag: string): TerminalAt => ({ controller: 'A' as ControllerId, terminal: tag as TerminalId })
  const on = [...new Set([pick(stations), ...(random() < 0.4 ? [pick(stations)] : [])])].map(at)
  const told = random() < 0.3 ? [{ ...at(pick(stations)), as: pick<Told>(['inrush', 'holding', 'off']) }] : []
  const running = runningOf(site, on, told)
  if (!running.ok) throw new Error(JSON.stringify(running.refusals))
  const conditions = conditionsFor(running.value, {
    climate: climateOf(site),
    frequency_Hz: pick<Frequency>([0, 50, 60]),
    phase: pick(['safe', 'optimistic']),
    mains_ratio: pick([1, 0.9]),
    wire: 'nominal',
  })
  const powered = poweredOf(site, conditions)
  const edits: Edit[] = closings(powered, running.value.live)
  const places = powered.parts.map((p, element) => ({ element, kind: p.of.kind }))
  const coils = places.filter((p) => p.kind === 'coil')
  const wires = places.filter((p) => p.kind === 'stretch' || p.kind === 'leg')
  const stretches = places.filter((p) => p.kind === 'stretch')
  const used = new Set<number>()
  const free = (list: typeof places) => pick(list.filter((p) => !used.has(p.element)))
  for (let n = Math.floor(random() * 4); n > 0; n--) {
    const [wire, coil] = [free(wires).element, free(coils).element]
    const ohm = 10 ** (random() * 4 - 1)
    const [first, second] = [free(stretches).element, free(stretches).element]
    const made = pick<() => Edit>([
      () => ({ kind: 'open', element: wire }),
      () => ({ kind: 'open', element: coil }),
      () => ({ kind: 'series', element: wire, ohm }),
      () => ({ kind: 'leak', node: powered.parts[wire]!.a, ohm: ohm * 10 }),
      () => ({ kind: 'bridge', a: powered.parts[wire]!.a, b: powered.parts[coil]!.b, ohm }),
      () => ({ kind: 'coil_short', element: coil }),
      () => ({ kind: 'coil_part', element: coil, fraction: 0.1 + 0.8 * random() }),
      () => ({
        kind: 'touch',
        first,
        firstAlong: random(),
        second: first === second ? null : second,
        secondAlong: random(),
        ohm,
      }),
    ])()
    for (const element of 'element' in made ? [made.element] : made.kind === 'touch' ? [first, second] : [])
      used.add(element)
    edits.push(made)
  }
  return {
    site,
    engine: engineOf(powered),
    edits,
    title: `seed ${seed}, ${conditions.frequency_Hz} Hz, ${edits.map((e) => e.kind).join(' ')}`,
  }
}
