import { climateOf, coil_ohm, minus, size } from '../circuit'
import { copperFactor } from '../quantity'
import { accepted, type Outcome } from '../refusal'
import { wiringOf, type DeviceId, type PathAt, type PlaceId, type Site } from '../site'
import { layoutOf } from './layout'
import { outputsOn } from './running'
import { pathEngine } from './volts'

/** Volts between the legs so far along the path. */
export interface AlongPoint {
  readonly place: PlaceId
  readonly at_m: number
  readonly volt_V: number
}
/**
 * What can be read of a station behind a decoder, where ohms from the controller cannot: volts on the way to it,
 * waiting and while it runs, the controller’s amperes, and its coils’ ohms at the box with the decoder’s leads off.
 */
export interface AlongPath {
  readonly decoder: DeviceId
  readonly waiting: readonly AlongPoint[]
  readonly running: readonly AlongPoint[]
  readonly minimum_V: number
  readonly waiting_A: number
  readonly running_A: number
  readonly coil_V: number | null
  readonly coils: readonly { readonly coil: DeviceId; readonly ohm: number }[]
}

/** The way to an output: with nothing on, and with it starting. Usual conditions, every load at its sheet’s amperes. */
export function alongPath(site: Site, at: PathAt, decoder: DeviceId, port: string): Outcome<AlongPath | null> {
  const made = pathEngine(site, at, 'constant_current')
  if (!made.ok) return made
  const { path, engine, solve, volts } = made.value
  const layout = layoutOf(site, path)
  const output = outputsOn(site, path).find((o) => o.decoder === decoder && o.port === port)
  const spot = layout.spots.findIndex((s) => s.decoders.includes(decoder))
  if (!output || spot < 0) return accepted(null)
  const way: { spot: number; leg: number; end: 'a' | 'b' }[] = []
  for (let here = spot; layout.parent[here] !== null;) {
    const leg = layout.parent[here]!
    const { a, b } = layout.legs[leg]!
    way.unshift({ spot: here, leg, end: a === here ? 'a' : 'b' })
    here = a === here ? b : a
  }
  const { nodeOf } = engine.powered
  const on = [{ output, face: 'inrush' as const }]
  const pointsOf = (state: typeof on): AlongPoint[] => {
    const solution = solve(state)
    const across = (one: string, two: string) => {
      const [a, b] = [nodeOf.get(one)!, nodeOf.get(two)!]
      return solution.floating(a) || solution.floating(b) ? 0 : size(minus(solution.volts(a), solution.volts(b)))
    }
    const begins = way[0]
    const home = begins && layout.legs[begins.leg]!
    const start = begins?.end === 'b' ? 'a' : 'b'
    const first = home?.first[0] && home.second[0] ? [across(home.first[0][start], home.second[0][start])] : []
    return [
      ...first.map((volt_V) => ({ place: layout.spots[0]!.place, at_m: 0, volt_V })),
      ...way.flatMap(({ spot: s, leg, end }): AlongPoint[] => {
        const [one, two] = [layout.legs[leg]!.first[0], layout.legs[leg]!.second[0]]
        if (!one || !two) return []
        return [{ place: layout.spots[s]!.place, at_m: layout.distance_m[s]!, volt_V: across(one[end], two[end]) }]
      }),
    ]
  }
  const [idle, runs] = [volts([]), volts(on)]
  const warm = copperFactor(climateOf(site).coil_C)
  const links = wiringOf(site).links
  return accepted({
    decoder,
    waiting: pointsOf([]),
    running: pointsOf(on),
    minimum_V: path.system.minimum_V!,
    waiting_A: idle.line_A,
    running_A: runs.line_A,
    coil_V: runs.coils[0]?.volt_V ?? null,
    coils: output.coils.flatMap((coil) => {
      const link = links.find((l) => l.kind === 'coil' && l.device === coil)
      return link?.kind === 'coil' ? [{ coil, ohm: coil_ohm(site, link, 'value') * warm }] : []
    }),
  })
}

/** Volts at the decoder of every output while that output starts, by decoder and port. */
export function runningVolts(
  site: Site,
  at: PathAt,
): Outcome<ReadonlyMap<string, { volt_V: number; enough: boolean }>> {
  const made = pathEngine(site, at, 'constant_current')
  if (!made.ok) return made
  const { volts } = made.value
  return accepted(
    new Map(
      outputsOn(site, at).flatMap((output) => {
        const found = volts([{ output, face: 'inrush' }]).decoders.find((d) => d.decoder === output.decoder)
        return found
          ? [[`${output.decoder} ${output.port}`, { volt_V: found.volt_V, enough: found.enough }] as const]
          : []
      }),
    ),
  )
}
