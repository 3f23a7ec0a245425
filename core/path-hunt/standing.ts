import { minus, size, type Edit } from '../circuit'
import type { KnownPath, PathEngine } from '../path'
import { wiringOf, type DeviceId, type Link, type PlaceId, type Site } from '../site'
import type { PathFault } from './faults'

type Stretch = Extract<Link, { kind: 'stretch' }>

/** The path as it stands with a fault in it, nothing running. */
export interface Standing {
  readonly volts: ReadonlyMap<DeviceId, number>
  /** Volts between the legs in a box, where its decoders hang on them. */
  readonly place_V: ReadonlyMap<PlaceId, number>
  readonly length_A: ReadonlyMap<Stretch, number>
  readonly line_A: number
  readonly terminal_V: number
}

/** The path with each fault in it, solved once each. */
export class Standings {
  private readonly made: PathEngine
  private readonly joints: ReadonlyMap<PlaceId, readonly [string, string]>
  private readonly elementOf: ReadonlyMap<unknown, number>
  private readonly sound: Standing
  private readonly known = new Map<PathFault, Standing>()

  constructor(site: Site, made: PathEngine) {
    this.made = made
    this.joints = jointsOf(site, made.path)
    this.elementOf = new Map(made.engine.powered.parts.map((p, i) => [p.of, i] as const))
    this.sound = this.solved([])
  }

  /** With a fault, or sound. */
  of(fault: PathFault | null): Standing {
    const edits = fault && this.editsOf(fault)
    if (!fault || edits === null) return this.sound
    if (!this.known.has(fault)) this.known.set(fault, this.solved(edits))
    return this.known.get(fault)!
  }

  private nodeOf(point: string): number {
    return this.made.engine.powered.nodeOf.get(point)!
  }

  private solved(edits: readonly Edit[]): Standing {
    const v = this.made.volts([], edits)
    const { floating, volts: at } = this.made.solve([], edits)
    return {
      volts: new Map(v.decoders.map((d) => [d.decoder, d.volt_V])),
      place_V: new Map(
        [...this.joints].map(([place, legs]) => {
          const [a, b] = legs.map((point) => this.nodeOf(point)) as [number, number]
          return [place, floating(a) || floating(b) ? 0 : size(minus(at(a), at(b)))]
        }),
      ),
      length_A: new Map(v.stretches.map((s) => [s.link, s.current_A])),
      line_A: v.line_A,
      terminal_V: v.terminal_V,
    }
  }

  /** What a fault is to the circuit while nothing runs; null where it is nothing then. */
  private editsOf(fault: PathFault): Edit[] | null {
    if (fault.kind === 'open') return [{ kind: 'open', element: this.elementOf.get(fault.link)! }]
    if (fault.kind === 'short') return [this.shortOf(fault)]
    const device = fault.where.kind === 'device' ? fault.where.device : null
    const legs = this.made.path.decoders.find((d) => d.device === device)?.legs
    if (!legs) return null
    const [a, b] = legs.map((point) => this.nodeOf(point)) as [number, number]
    if (fault.kind === 'decoder_short') return [{ kind: 'bridge', a, b, ohm: 1 }]
    const { idle_A } = this.made.path.system
    return fault.kind === 'decoder_dead' ? [{ kind: 'draw', a, b, amps: { re: -idle_A!, im: 0 } }] : null
  }

  private shortOf({ at: { first, second, end }, ohm }: Extract<PathFault, { kind: 'short' }>): Edit {
    if (end !== 'along') return { kind: 'bridge', a: this.nodeOf(first[end]), b: this.nodeOf(second[end]), ohm }
    const [one, two] = [this.elementOf.get(first)!, this.elementOf.get(second)!]
    return { kind: 'touch', first: one, firstAlong: 0.5, second: two, secondAlong: 0.5, ohm }
  }
}

/** Where decoders hang on the legs in every box that has one: the joints, not the decoders’ own leads. */
function jointsOf(site: Site, path: KnownPath): ReadonlyMap<PlaceId, readonly [string, string]> {
  const { links, placeOf } = wiringOf(site)
  const joint = new Map(links.flatMap((l) => (l.kind === 'leg' ? [[l.b, l.a] as const] : [])))
  return new Map(
    path.decoders.flatMap(({ legs }) => {
      const [a, b] = legs?.map((leg) => joint.get(leg)) ?? []
      return a !== undefined && b !== undefined ? [[placeOf.get(a)!, [a, b] as const] as const] : []
    }),
  )
}
