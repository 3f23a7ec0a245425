import { engineOf, minimumOf, minus, size, type Edit, type Powered, type Solution } from '../circuit'
import type { Demand, Grouped } from '../sizing'
import { getOrThrow, lookUp, type DeviceId, type Link, type Site } from '../site'
import { layoutOf, type PathLayout } from './layout'
import { coil_A, outputsOn, type KnownPath, type OutputOn } from './running'
import { engineFor, type PathEngine } from './volts'

/** A decoder, or a coil that starts behind one, at its worst moment: what it has and what it needs. */
export interface PathMargin {
  readonly device: DeviceId
  readonly decoder: DeviceId
  readonly volt_V: number
  readonly minimum_V: number
  readonly margin_V: number
  /** What is on then. */
  readonly on: readonly OutputOn[]
}
/** A decoder, or an output whose coil starts. */
interface Watch {
  readonly decoder: DeviceId
  readonly spot: number
  readonly starts: { readonly coil: DeviceId; readonly on: OutputOn } | null
}
type Stretch = Extract<Link, { kind: 'stretch' }>

/** The worst moments of a path, whatever the size of its wire. */
export class Moments {
  readonly layout: PathLayout
  readonly watches: readonly Watch[]
  private readonly path: KnownPath
  private readonly outputs: ReturnType<typeof outputsOn>
  private readonly spotOf = new Map<DeviceId, number>()
  private readonly together: number

  constructor(
    readonly site: Site,
    readonly made: PathEngine,
  ) {
    this.path = made.path
    this.layout = layoutOf(site, made.path)
    this.layout.spots.forEach(({ decoders }, spot) => decoders.forEach((d) => this.spotOf.set(d, spot)))
    this.outputs = outputsOn(site, made.path).filter((o) => this.spotOf.has(o.decoder))
    this.together = Math.max(1, site.settings.sizing.together)
    this.watches = [
      ...[...this.spotOf].map(([decoder, spot]): Watch => ({ decoder, spot, starts: null })),
      ...this.outputs.flatMap((output) =>
        output.coils.map((coil): Watch => {
          const starts = { coil, on: { output, face: 'inrush' as const } }
          return { decoder: output.decoder, spot: this.spotOf.get(output.decoder)!, starts }
        }),
      ),
    ]
  }

  private drawn_A({ output, face }: OutputOn): number {
    const { active_A, idle_A } = this.path.system
    return active_A! - idle_A! + output.coils.reduce((sum, c) => sum + coil_A(this.site, c, face), 0)
  }

  /** The spot before one, toward the controller, and the length between. */
  private before(spot: number) {
    const leg = this.layout.parent[spot]
    if (leg === null || leg === undefined) return null
    const { a, b } = this.layout.legs[leg]!
    return { spot: a === spot ? b : a, leg: this.layout.legs[leg]! }
  }

  /** Spots on the way from one to the controller. */
  private wayOf(spot: number): Set<number> {
    const way = new Set([spot])
    for (let b = this.before(spot); b; b = this.before(b.spot)) way.add(b.spot)
    return way
  }

  /** Every watched device at its worst moment with this wire. `isOpened` parts the length that closes each loop. */
  margins(powered: Powered, isOpened = true): PathMargin[] {
    const engine = engineFor(this.path, engineOf(powered))
    const elementOf = new Map(powered.parts.map((p, element) => [p.of, element] as const))
    const legOhm = (link: Stretch) => powered.parts[elementOf.get(link)!]?.z.re ?? 0
    const sideOhm = (side: readonly Stretch[]) => 1 / side.reduce((sum, l) => sum + 1 / legOhm(l), 0)
    // Ohms of both legs from the controller to each spot.
    const out_ohm = this.layout.spots.map(() => 0)
    for (const spot of this.layout.outward.slice(1)) {
      const { spot: prior, leg } = this.before(spot)!
      out_ohm[spot] = out_ohm[prior]! + sideOhm(leg.first) + sideOhm(leg.second)
    }
    const parted = isOpened
      ? this.layout.closing.flatMap((leg) =>
          [...this.layout.legs[leg]!.first, ...this.layout.legs[leg]!.second].flatMap((l): Edit[] =>
            elementOf.has(l) ? [{ kind: 'open', element: elementOf.get(l)! }] : [],
          ),
        )
      : []
    const solved = new Map<string, Solution>()
    const solutionOf = (on: readonly OutputOn[]): Solution => {
      const key = on.map((o) => `${o.output.decoder} ${o.output.port} ${o.face}`).join('|')
      if (!solved.has(key)) solved.set(key, engine.solve(on, parted))
      return solved.get(key)!
    }
    return this.watches.flatMap((watch): PathMargin[] => {
      const on = this.worstFor(watch, out_ohm)
      const volt_V = this.voltsAt(powered, watch, solutionOf(on))
      if (volt_V === null) return []
      const minimum_V = this.minimumOf(watch)
      const device = watch.starts?.coil ?? watch.decoder
      return [{ device, decoder: watch.decoder, volt_V, minimum_V, margin_V: volt_V - minimum_V, on }]
    })
  }

  private minimumOf({ starts }: Watch): number {
    if (starts === null) return this.path.system.minimum_V!
    const { coilKind } = getOrThrow(this.site.devices, starts.coil)
    return minimumOf(coilKind === null ? null : (lookUp(this.site.coilKinds, coilKind) ?? null), 'inrush')
  }

  /** Volts at a decoder or a coil; null where nothing feeds it, which no wire mends. */
  private voltsAt({ wiring, nodeOf }: Powered, { decoder, starts }: Watch, solution: Solution): number | null {
    const ends = starts ? (['a', 'b'] as const) : (['path_1', 'path_2'] as const)
    const device = starts?.coil ?? decoder
    const [a, b] = ends.map((port) => nodeOf.get(wiring.pointOf({ kind: 'port', device, port }))!) as [number, number]
    if (solution.floating(a) || solution.floating(b)) return null
    return size(minus(solution.volts(a), solution.volts(b)))
  }

  /**
   * The outputs on at the worst moment of a watched device: one starts, the others hold. What an output takes from it
   * is its current over the ohms that both share, so the worst are those that take most.
   */
  private worstFor({ spot, starts }: Watch, out_ohm: readonly number[]): OutputOn[] {
    const way = this.wayOf(spot)
    const shared_ohm = out_ohm.map(() => 0)
    for (const s of this.layout.outward)
      shared_ohm[s] = way.has(s) ? out_ohm[s]! : shared_ohm[this.before(s)?.spot ?? 0]!
    // The controller’s own ohms are shared by all.
    const source_ohm = this.path.system.source_ohm
    const takes = (on: OutputOn) => this.drawn_A(on) * (source_ohm + shared_ohm[this.spotOf.get(on.output.decoder)!]!)
    const ranked = this.outputs
      .filter((output) => output !== starts?.on.output)
      .map((output) => {
        const [start, hold] = (['inrush', 'holding'] as const).map((face): OutputOn => ({ output, face }))
        return { start: start!, hold: hold!, start_V: takes(start!), hold_V: takes(hold!) }
      })
      .sort((a, b) => b.hold_V - a.hold_V)
    const holding = (count: number) => ranked.slice(0, Math.max(0, count))
    if (starts) return [starts.on, ...holding(this.together - 1).map((r) => r.hold)]
    const sum = (list: typeof ranked) => list.reduce((s, r) => s + r.hold_V, 0)
    const [withOne, without] = [sum(holding(this.together)), sum(holding(this.together - 1))]
    const isAmong = (r: (typeof ranked)[number]) => holding(this.together).includes(r)
    const worth = (r: (typeof ranked)[number]) => r.start_V + (isAmong(r) ? withOne - r.hold_V : without)
    const starter = ranked.reduce<(typeof ranked)[number] | null>((m, r) => (m && worth(m) >= worth(r) ? m : r), null)
    if (!starter) return []
    const others = ranked.filter((r) => r !== starter).slice(0, this.together - 1)
    return [starter.start, ...others.map((r) => r.hold)]
  }

  /** The demand that a device makes at its moment on the groups that may be chosen, of which these are the ohms now. */
  demandOf(
    { device, decoder, margin_V, on }: PathMargin,
    { groupOf, weight_m }: Grouped,
    ohmPerM: (group: number) => number,
  ): Demand {
    const { idle_A } = this.path.system
    const below_A = this.layout.spots.map((s) => s.decoders.length * idle_A!)
    for (const o of on) below_A[this.spotOf.get(o.output.decoder)!]! += this.drawn_A(o)
    for (const spot of [...this.layout.outward].reverse()) {
      const before = this.before(spot)
      if (before) below_A[before.spot]! += below_A[spot]!
    }
    const { parts } = this.made.engine.powered
    const elementOf = new Map(parts.map((p, element) => [p.of, element] as const))
    const weights = new Map<number, number>()
    const spot = this.spotOf.get(decoder)!
    for (let [s, b] = [spot, this.before(spot)]; b; s = b.spot, b = this.before(s))
      for (const side of [b.leg.first, b.leg.second]) {
        // Conductors side by side in one jacket are of one size and share its current.
        const element = elementOf.get(side[0]!)
        const group = element === undefined ? -1 : groupOf[element]!
        if (group < 0) continue
        const weight = (below_A[s]! / side.length) * weight_m[element!]!
        weights.set(group, (weights.get(group) ?? 0) + weight)
      }
    const taken_V = [...weights].reduce((sum, [g, w]) => sum + w * ohmPerM(g), 0)
    const key = [device, ...on.map((o) => `${o.output.decoder} ${o.output.port} ${o.face}`)].join('|')
    return { key, weights, limit_V: taken_V + margin_V }
  }
}
