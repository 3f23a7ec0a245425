import { probeAt } from '../core/formats'
import { accepted, refusal, refused, type Outcome } from '../core/refusal'
import { entries, type CableId, type ControllerId, type CoreId, type DeviceId, type Site, type TerminalId } from '../core/site'

/** Something wrong in the ground that the record does not know. A stretch is named by the stop at which it leaves. */
export type FieldFault =
  | { readonly kind: 'open' | 'series' | 'leak'; readonly cable: CableId; readonly core: CoreId; readonly from: number; readonly ohm: number }
  | { readonly kind: 'touch'; readonly cable: CableId; readonly core: CoreId; readonly other: CoreId; readonly from: number; readonly ohm: number }
  | { readonly kind: 'joint-open' | 'joint-series'; readonly device: DeviceId; readonly port: string; readonly ohm: number }
  | { readonly kind: 'coil-open' | 'coil-short' | 'coil-part'; readonly device: DeviceId; readonly fraction: number }
  | { readonly kind: 'swap'; readonly controller: ControllerId; readonly one: TerminalId; readonly two: TerminalId }
  | { readonly kind: 'supply'; readonly controller: ControllerId }

/** Kinds by what they name and whether a figure follows. */
const STRETCH = { open: false, series: true, leak: true } as const
const FIGURE = /^\d+(\.\d+)?$/

/**
 * Reads a fault as it is written for the shell: `open K1/white@B4`, `series K1/red@A 12`, `leak K1/red@B2 5000`,
 * `touch K1/red/white@B2 0`, `joint-open V3.a`, `joint-series V5.a 1.8`, `coil-open V3`, `coil-short V3`,
 * `coil-part V18 0.45`, `swap A:2 A:3`, `supply A`. A stretch is the one that leaves the box.
 */
export function readFault(site: Site, written: string): Outcome<FieldFault> {
  const [kind = '', where = '', figure, more] = written.trim().split(/\s+/)
  const bad = () => refused(refusal('bad_fault', ['--fault'], { text: written }))
  if (more !== undefined) return bad()
  if (kind in STRETCH || kind === 'touch') return stretchFault(site, kind as 'open' | 'series' | 'leak' | 'touch', where, figure) ?? bad()
  if (kind.startsWith('joint-') || kind.startsWith('coil-')) {
    const [tag, port] = where.split('.')
    const device = entries(site.devices).find(([id, d]) => d.tag === tag || id === tag)?.[0]
    if (device === undefined) return bad()
    if (kind === 'joint-open' && port && figure === undefined) return accepted({ kind, device, port, ohm: 0 })
    if (kind === 'joint-series' && port && figure !== undefined && FIGURE.test(figure)) return accepted({ kind, device, port, ohm: Number(figure) })
    if ((kind === 'coil-open' || kind === 'coil-short') && port === undefined && figure === undefined) return accepted({ kind, device, fraction: 1 })
    return kind === 'coil-part' && port === undefined && figure !== undefined && Number(figure) > 0 && Number(figure) < 1 ? accepted({ kind, device, fraction: Number(figure) }) : bad()
  }
  if (kind === 'swap') {
    const [one, two] = [probeAt(site, where), probeAt(site, figure ?? '')]
    return one && two && one.controller === two.controller && one.terminal !== two.terminal ? accepted({ kind, controller: one.controller, one: one.terminal, two: two.terminal }) : bad()
  }
  const controller = entries(site.controllers).find(([, c]) => c.tag === where)?.[0]
  return kind === 'supply' && controller !== undefined && figure === undefined ? accepted({ kind, controller }) : bad()
}

function stretchFault(site: Site, kind: 'open' | 'series' | 'leak' | 'touch', where: string, figure: string | undefined): Outcome<FieldFault> | null {
  const [conductor, box] = where.split('@')
  const [tag, core, other] = (conductor ?? '').split('/')
  const cable = entries(site.cables).find(([id, c]) => c.tag === tag || id === tag)
  if (!cable) return null
  const named = (written: string | undefined) => entries(cable[1].cores).find(([id, c]) => id === written || c.colour?.value === written)?.[0]
  const from = cable[1].stops.findIndex((s) => site.places[s.place]?.tag === box)
  const [one, two] = [named(core), named(other)]
  if (!one || from < 0 || from >= cable[1].stops.length - 1 || (figure !== undefined && !FIGURE.test(figure))) return null
  if (kind === 'touch') return two && two !== one ? accepted({ kind, cable: cable[0], core: one, other: two, from, ohm: Number(figure ?? 0) }) : null
  return other === undefined && STRETCH[kind] === (figure !== undefined) ? accepted({ kind, cable: cable[0], core: one, from, ohm: Number(figure ?? 0) }) : null
}
