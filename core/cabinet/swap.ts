import { getOrThrow, type ControllerId, type Site, type TerminalId } from '../site'
import { doorOf, unlandedAt } from './door'

/** A step of changing a controller: what is done before, a conductor that moves, what is done after. */
export type SwapStep =
  | { readonly kind: 'before' | 'after'; readonly code: SwapCode }
  | {
      readonly kind: 'move'
      readonly terminal: TerminalId
      readonly tag: string
      readonly label: string
      readonly colours: readonly (string | null)[]
      readonly from: readonly string[]
      readonly name: string
    }
export type SwapCode =
  | 'pause'
  | 'photo'
  | 'count'
  | 'power_off'
  | 'prove_dead'
  | 'mount'
  | 'mains'
  | 'spares'
  | 'sensor'
  | 'link'
  | 'remote'
  | 'tug'
  | 'power_on'
  | 'modules'
  | 'sweep'
  | 'dial'

/**
 * One screw at a time: every conductor goes straight from its old terminal to the new one, the common last, so that
 * nothing is ever loose in the hand.
 */
export function swapSteps(site: Site, controller: ControllerId): SwapStep[] {
  const record = getOrThrow(site.controllers, controller)
  const step =
    (kind: 'before' | 'after') =>
    (code: SwapCode): SwapStep => ({ kind, code })
  const landed = doorOf(site, controller).filter((t) => t.landed.length > 0)
  const moves = [...landed.filter((t) => t.role !== 'common'), ...landed.filter((t) => t.role === 'common')].map(
    (t): SwapStep => ({
      kind: 'move',
      terminal: t.terminal,
      tag: t.tag,
      label: t.label,
      colours: t.landed.map((s) => s.colour),
      from: t.landed.map((s) => s.from),
      name: t.name,
    }),
  )
  const before: SwapCode[] = [
    'pause',
    'photo',
    ...(record.kind === 'conventional' ? [] : ['count' as const]),
    'power_off',
    'prove_dead',
    'mains',
    'mount',
    ...(record.bays.length > 0 ? ['modules' as const] : []),
  ]
  const after: SwapCode[] = [
    ...(unlandedAt(site, record.place).length > 0 ? ['spares' as const] : []),
    record.sensor.closedBy === 'sensor' ? 'sensor' : 'link',
    ...(record.remotePort ? ['remote' as const] : []),
    'tug',
    'power_on',
    'sweep',
    'dial',
  ]
  return [...before.map(step('before')), ...moves, ...after.map(step('after'))]
}
