import type { Device } from './device'
import type { DeviceId } from './ids'
import { entries, lookUp } from './look-up'
import { netsOf } from './nets'
import { pathsOf } from './paths'
import type { Site } from './site'
import type { System } from './system'
import { wiringOf } from './wiring'

type Decoder = Extract<Device, { kind: 'decoder' }>

/** One output of a decoder: the number that it answers to, and the coils on its own leads by the wiring. */
export interface Output {
  readonly decoder: DeviceId
  readonly port: `out_${number}`
  readonly address: number | null
  readonly coils: readonly DeviceId[]
}

const made = new WeakMap<Site, readonly Output[]>()

/** Every output of every decoder, in the order of the record. */
export function outputsOf(site: Site): readonly Output[] {
  if (!made.has(site)) made.set(site, readOutputs(site))
  return made.get(site)!
}

function readOutputs(site: Site): Output[] {
  const wiring = wiringOf(site)
  const nets = netsOf(wiring)
  const netOf = (device: DeviceId, port: string) => nets.of(wiring.pointOf({ kind: 'port', device, port }))
  const coilsBetween = new Map<string, DeviceId[]>()
  for (const link of wiring.links) {
    if (link.kind !== 'coil') continue
    const key = [nets.of(link.a), nets.of(link.b)].sort().join('|')
    coilsBetween.set(key, [...(coilsBetween.get(key) ?? []), link.device])
  }
  const systems = new Map(pathsOf(site).flatMap((p) => p.decoders.map((d) => [d.device, p.system] as const)))
  return entries(site.devices).flatMap(([decoder, d]) => {
    if (d.kind !== 'decoder') return []
    const own = d.system === null ? null : lookUp(site.systems, d.system)
    const system = own ?? systems.get(decoder) ?? null
    const common = netOf(decoder, 'common')
    return Array.from({ length: d.outputs }, (_, i): Output => {
      const port = `out_${i + 1}` as const
      const coils = coilsBetween.get([netOf(decoder, port), common].sort().join('|')) ?? []
      return { decoder, port, address: addressOf(d, i, system), coils }
    })
  })
}

/** The number that an output answers to, counted from 0: by its system, on from the decoder’s, or one of its own. */
function addressOf(decoder: Decoder, output: number, system: System | null): number | null {
  if (decoder.address === null || output === 0) return decoder.address
  const own = decoder.moreAddresses[output - 1]
  if (own !== undefined) return own
  return system?.addresses.duals === 'own' ? null : decoder.address + output
}
