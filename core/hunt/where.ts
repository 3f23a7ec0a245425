import {
  must,
  type CableId,
  type ControllerId,
  type CoreId,
  type DeviceId,
  type PlaceId,
  type Site,
  type SpliceId,
  type TerminalId,
} from '../site'

/**
 * The part that a finding names: what is mended by one repair and cannot be told apart any further without a spade. A run
 * is one core between two openings; its stops are places in the cable's list.
 */
export type Where =
  | { readonly kind: 'joint'; readonly splice: SpliceId }
  | { readonly kind: 'run'; readonly cable: CableId; readonly core: CoreId; readonly from: number; readonly to: number }
  /** Two cores that touch along a stretch that they share. */
  | {
      readonly kind: 'touch'
      readonly cable: CableId
      readonly core: CoreId
      readonly other: CoreId
      readonly from: number
      readonly to: number
    }
  | { readonly kind: 'coil'; readonly device: DeviceId }
  | { readonly kind: 'valve'; readonly device: DeviceId }
  | { readonly kind: 'pair'; readonly controller: ControllerId; readonly one: TerminalId; readonly two: TerminalId }
  | { readonly kind: 'terminal'; readonly controller: ControllerId; readonly terminal: TerminalId }
  | { readonly kind: 'supply' | 'sensor' | 'water'; readonly controller: ControllerId }

/** A text that is equal for the same part. */
export function whereKey(w: Where): string {
  switch (w.kind) {
    case 'joint':
      return `joint ${w.splice}`
    case 'run':
      return `run ${w.cable} ${w.core} ${w.from} ${w.to}`
    case 'touch':
      return `touch ${w.cable} ${[w.core, w.other].sort().join(' ')} ${w.from} ${w.to}`
    case 'coil':
    case 'valve':
      return `${w.kind} ${w.device}`
    case 'pair':
      return `pair ${w.controller} ${[w.one, w.two].sort().join(' ')}`
    case 'terminal':
      return `terminal ${w.controller} ${w.terminal}`
    case 'supply':
    case 'sensor':
    case 'water':
      return `${w.kind} ${w.controller}`
  }
}

/** The places at which a part lies: one, or the two ends of a run. */
export function placesOf(site: Site, w: Where): PlaceId[] {
  switch (w.kind) {
    case 'joint':
      return [must(site.splices, w.splice).place]
    case 'run':
    case 'touch': {
      const { stops } = must(site.cables, w.cable)
      return [stops[w.from]!.place, stops[w.to]!.place]
    }
    case 'coil':
    case 'valve':
      return [must(site.devices, w.device).place]
    default:
      return [must(site.controllers, w.controller).place]
  }
}
