import { gaugeText, type Gauge } from '../quantity'
import { bounded, entries, stopPositions_m, type Cable, type CableId, type PlaceId, type Site } from '../site'

/** What is bought alike and comes off the same spools. */
export interface Ware {
  readonly key: string
  readonly kind: Cable['kind']
  readonly cores: number
  readonly gauge: Gauge | null
  readonly colour: string | null
}

/** A cable to be ordered: its route, and what is added to it. */
export interface CableLength {
  readonly cable: CableId
  readonly ware: Ware
  readonly from: PlaceId
  readonly to: PlaceId
  readonly route_m: number
  readonly expansion_m: number
  readonly slack_m: number
  readonly order_m: number
  /** Cable ends that get slack: two where the jacket is opened on its way. */
  readonly ends: number
  /** A length on the way is not on record; the most that it may be is taken. */
  readonly unknown: boolean
}

export const wareOf = (cable: Cable): Ware => {
  const cores = Object.values(cable.cores)
  const gauge = cable.gauge?.value ?? cores[0]?.gauge?.value ?? null
  const colour = cable.kind === 'single' ? (cores[0]?.colour?.value ?? null) : null
  return {
    key: [cable.kind, cores.length, gauge && gaugeText(gauge), colour].join(' '),
    kind: cable.kind,
    cores: cores.length,
    gauge,
    colour,
  }
}

/** Inner stops at which a core is cut: there the jacket is opened and gets slack on both sides. */
export const openedAt = (cable: Cable): ReadonlySet<number> =>
  new Set(
    cable.stops.flatMap((s, i) =>
      i > 0 && i < cable.stops.length - 1 && Object.values(cable.cores).some((c) => c.cutAt.includes(s.id)) ? [i] : [],
    ),
  )

/**
 * Metres to order for a piece of cable between two of its stops: route, expansion, slack at its ends and where it is
 * opened.
 */
export function pieceLength(
  site: Site,
  cable: Cable,
  from: number,
  to: number,
): { route_m: number; expansion_m: number; slack_m: number; ends: number } {
  const { slackPerEnd_m, expansion_ratio } = site.settings.material
  const at = stopPositions_m(cable)
  const route_m = Math.max(0, at[to]!.high - at[from]!.high)
  const ends = 2 + 2 * [...openedAt(cable)].filter((i) => i > from && i < to).length
  return { route_m, expansion_m: route_m * expansion_ratio, slack_m: ends * slackPerEnd_m, ends }
}

/** Every cable of the property as it must be ordered. */
export function cableLengths(site: Site): CableLength[] {
  return entries(site.cables)
    .filter(([, c]) => c.kind !== 'jumper')
    .map(([id, cable]) => {
      const last = cable.stops.length - 1
      const piece = pieceLength(site, cable, 0, last)
      return {
        cable: id,
        ware: wareOf(cable),
        from: cable.stops[0]!.place,
        to: cable.stops[last]!.place,
        ...piece,
        order_m: piece.route_m + piece.expansion_m + piece.slack_m,
        unknown: cable.stops.some((s, i) => {
          const at = bounded(s.at_m)
          return i > 0 && (at === null || at.low !== at.high)
        }),
      }
    })
}
