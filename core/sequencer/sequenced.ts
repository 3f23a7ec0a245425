import {
  entries,
  getOrThrow,
  netsOf,
  terminalEnd,
  wiringOf,
  type ControllerId,
  type DeviceId,
  type Site,
  type TerminalId,
} from '../site'

/** A sequencer on a controller’s lead: the screws that feed it, and the coils on its outputs in their order. */
export interface Sequenced {
  readonly device: DeviceId
  readonly off_ms: number
  readonly fedBy: readonly TerminalId[]
  readonly outputs: readonly (readonly DeviceId[])[]
}

/** The sequencers that screws of a controller feed, by the wiring on record. */
export function sequencersOf(site: Site, controller: ControllerId): Sequenced[] {
  const wiring = wiringOf(site)
  const nets = netsOf(wiring)
  const portNet = (device: DeviceId, port: string) => nets.of(wiring.pointOf({ kind: 'port', device, port }))
  const screws = entries(getOrThrow(site.controllers, controller).terminals).map(
    ([terminal]) => [terminal, nets.of(wiring.pointOf(terminalEnd(controller, terminal)))] as const,
  )
  const coils = entries(site.devices).filter(([, d]) => d.kind === 'coil' || d.kind === 'relay')
  return entries(site.devices).flatMap(([device, d]): Sequenced[] => {
    if (d.kind !== 'sequencer') return []
    const input = portNet(device, 'in')
    const fedBy = screws.flatMap(([terminal, net]) => (net === input ? [terminal] : []))
    if (fedBy.length === 0) return []
    const outputs = Array.from({ length: d.outputs }, (_, i) => {
      const out = portNet(device, `out_${i + 1}`)
      return coils.flatMap(([id]) => (portNet(id, 'a') === out || portNet(id, 'b') === out ? [id] : []))
    })
    return [{ device, off_ms: d.off_ms, fedBy, outputs }]
  })
}

/** The last output that has a valve: what comes last in the cycle. -1 without any. */
export const lastOutput = ({ outputs }: Sequenced): number => outputs.findLastIndex((coils) => coils.length > 0)
