import {
  getOrThrow,
  linkLength_m,
  netsOf,
  wiringOf,
  type DeviceId,
  type Output,
  type PathAt,
  type Site,
  type System,
} from '../site'
import { outputsOn } from './running'

/** The wire between an output and its coils: how long it is in all, and whether it is a twisted pair throughout. */
export interface CoilLead {
  readonly output: Output
  readonly length_m: number
  readonly isTwisted: boolean
}

/** The leads of every output on a path that has coils; length 0 where a coil is joined to its decoder directly. */
export function coilLeads(site: Site, path: PathAt): CoilLead[] {
  const wiring = wiringOf(site)
  const nets = netsOf(wiring)
  const lengths = new Map<string, { length_m: number; isTwisted: boolean }>()
  for (const link of wiring.links) {
    if (link.kind !== 'stretch') continue
    const net = nets.of(link.a)
    const known = lengths.get(net) ?? { length_m: 0, isTwisted: true }
    lengths.set(net, {
      length_m: known.length_m + linkLength_m(site, link),
      isTwisted: known.isTwisted && getOrThrow(site.cables, link.cable).kind === 'twisted_pair',
    })
  }
  const leadAt = (device: DeviceId, port: string) =>
    lengths.get(nets.of(wiring.pointOf({ kind: 'port', device, port }))) ?? { length_m: 0, isTwisted: true }
  return outputsOn(site, path)
    .filter((o) => o.coils.length > 0)
    .map((output) => ({ output, ...leadAt(output.decoder, output.port) }))
}

/** A lead that does not suit a system: too long, or no twisted pair where it wants one. */
export interface WrongLead {
  readonly decoder: DeviceId
  readonly length_m: number
  readonly why: 'long' | 'untwisted'
}

/** Leads between decoders and coils that do not suit a system. */
export function wrongLeads(site: Site, path: PathAt, system: System): WrongLead[] {
  return coilLeads(site, path).flatMap(({ output: { decoder }, length_m, isTwisted }): WrongLead[] => {
    if (system.coilLead_m !== null && length_m > system.coilLead_m) return [{ decoder, length_m, why: 'long' }]
    return system.coilLead === 'twisted' && !isTwisted ? [{ decoder, length_m, why: 'untwisted' }] : []
  })
}
