import { deviceAt, endAt, probeAt } from '../core/formats'
import { accepted, refusal, refused, type Outcome } from '../core/refusal'
import {
  entries,
  type CableId,
  type ControllerId,
  type CoreId,
  type DeviceId,
  type End,
  type Site,
  type TerminalId,
} from '../core/site'

/** Something wrong in the ground that the record does not know. A stretch is named by the stop at which it leaves. */
export type FieldFault =
  | {
      readonly kind: 'open' | 'series' | 'leak'
      readonly cable: CableId
      readonly core: CoreId
      readonly from: number
      readonly ohm: number
    }
  | {
      readonly kind: 'touch'
      readonly cable: CableId
      readonly core: CoreId
      readonly other: CoreId
      readonly from: number
      readonly ohm: number
    }
  /** Where a joint holds this end. `joint-loose` fails in every other test. */
  | {
      readonly kind: 'joint-open' | 'joint-series' | 'joint-leak' | 'joint-loose'
      readonly end: End
      readonly ohm: number
    }
  | { readonly kind: 'coil-open' | 'coil-short' | 'coil-part'; readonly device: DeviceId; readonly fraction: number }
  /** A latching coil, or one with another winding than recorded. */
  | { readonly kind: 'coil-dc' | 'coil-kind'; readonly device: DeviceId; readonly ohm: number }
  | { readonly kind: 'stuck-shut' | 'stuck-open'; readonly device: DeviceId }
  /** Two leads under each other's screws; or both under the first one's. */
  | {
      readonly kind: 'swap' | 'doubled'
      readonly controller: ControllerId
      readonly one: TerminalId
      readonly two: TerminalId
    }
  | { readonly kind: 'terminal'; readonly controller: ControllerId; readonly terminal: TerminalId }
  | { readonly kind: 'supply' | 'sensor' | 'water'; readonly controller: ControllerId }

/** Faults of a stretch, and whether a figure follows. */
const STRETCH = { open: false, series: true, leak: true } as const
const FIGURE = /^\d+(\.\d+)?$/

/**
 * Reads a fault as it is written for the shell: `open K1/white@B4`, `series K1/red@A 12`, `leak K1/red@B2 5000`,
 * `touch K1/red/white@B2 0`, `joint-open V3.a`, `joint-series V5.a 1.8`, `joint-series K1/white@B4< 30`, `joint-leak
 * V3.a 4000`, `joint-loose V3.b`, `coil-open V3`, `coil-short V3`, `coil-part V18 0.45`, `coil-dc V3`, `coil-kind V3
 * 52`, `stuck-shut V3`, `stuck-open V3`, `swap A:2 A:3`, `doubled A:2 A:3`, `terminal A:3`, `supply A`, `sensor A`,
 * `water A`. A stretch is the one that leaves the box; a joint is named by a coil's port or by a core that arrives
 * (`<`) or leaves (`>`) there.
 */
export function readFault(site: Site, written: string): Outcome<FieldFault> {
  const [kind = '', where = '', figure, more] = written.trim().split(/\s+/)
  const bad = () => refused(refusal('bad_fault', ['--fault'], { text: written }))
  if (more !== undefined) return bad()
  const plain = figure === undefined
  const ohm = figure !== undefined && FIGURE.test(figure) ? Number(figure) : null
  const device = deviceAt(site, where)
  const controller = entries(site.controllers).find(([, c]) => c.tag === where)?.[0]
  switch (kind) {
    case 'open':
    case 'series':
    case 'leak':
    case 'touch':
      return stretchFault(site, kind, where, figure) ?? bad()
    case 'joint-open':
    case 'joint-loose':
    case 'joint-series':
    case 'joint-leak': {
      const end = endAt(site, where)
      const sized = kind === 'joint-series' || kind === 'joint-leak'
      return end && (sized ? ohm !== null : plain) ? accepted({ kind, end, ohm: ohm ?? 0 }) : bad()
    }
    case 'coil-open':
    case 'coil-short':
      return device && plain ? accepted({ kind, device, fraction: 1 }) : bad()
    case 'coil-part':
      return device && ohm !== null && ohm > 0 && ohm < 1 ? accepted({ kind, device, fraction: ohm }) : bad()
    case 'coil-dc':
      return device && plain ? accepted({ kind, device, ohm: LATCHING_ohm }) : bad()
    case 'coil-kind':
      return device && ohm !== null && ohm > 0 ? accepted({ kind, device, ohm }) : bad()
    case 'stuck-shut':
    case 'stuck-open':
      return device && plain ? accepted({ kind, device }) : bad()
    case 'swap':
    case 'doubled': {
      const [one, two] = [probeAt(site, where), probeAt(site, figure ?? '')]
      return one && two && one.controller === two.controller && one.terminal !== two.terminal
        ? accepted({ kind, controller: one.controller, one: one.terminal, two: two.terminal })
        : bad()
    }
    case 'terminal': {
      const at = probeAt(site, where)
      return at && plain ? accepted({ kind, controller: at.controller, terminal: at.terminal }) : bad()
    }
    case 'supply':
    case 'sensor':
    case 'water':
      return controller !== undefined && plain ? accepted({ kind, controller }) : bad()
    default:
      return bad()
  }
}

/** A latching coil's winding, Ω. */
const LATCHING_ohm = 5

function stretchFault(
  site: Site,
  kind: 'open' | 'series' | 'leak' | 'touch',
  where: string,
  figure: string | undefined,
): Outcome<FieldFault> | null {
  const [conductor, box] = where.split('@')
  const [tag, core, other] = (conductor ?? '').split('/')
  const cable = entries(site.cables).find(([id, c]) => c.tag === tag || id === tag)
  if (!cable) return null
  const named = (written: string | undefined) =>
    entries(cable[1].cores).find(([id, c]) => id === written || c.colour?.value === written)?.[0]
  const from = cable[1].stops.findIndex((s) => site.places[s.place]?.tag === box)
  const [one, two] = [named(core), named(other)]
  if (!one || from < 0 || from >= cable[1].stops.length - 1 || (figure !== undefined && !FIGURE.test(figure)))
    return null
  if (kind === 'touch')
    return two && two !== one
      ? accepted({ kind, cable: cable[0], core: one, other: two, from, ohm: Number(figure ?? 0) })
      : null
  return other === undefined && STRETCH[kind] === (figure !== undefined)
    ? accepted({ kind, cable: cable[0], core: one, from, ohm: Number(figure ?? 0) })
    : null
}
