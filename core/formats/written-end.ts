import { endKey, entries, getOrThrow, lookUp, type DeviceId, type End, type Site, type SpliceId } from '../site'

/** A device by its tag or id; null for none. */
export const deviceAt = (site: Site, written: string): DeviceId | null =>
  entries(site.devices).find(([id, d]) => d.tag?.toLowerCase() === written.toLowerCase() || id === written)?.[0] ?? null

/**
 * The end of a joint as written: `V3.a`, a port; or `K1/white@B4<`, the core that arrives at a box (`>`: that leaves
 * there).
 */
export function endAt(site: Site, written: string): End | null {
  const core = /^(.+)\/(.+)@(.+)([<>])$/.exec(written)
  if (core) {
    const [, tag, name, box, arrow] = core as unknown as [string, string, string, string, string]
    const cable = entries(site.cables).find(([id, c]) => c.tag === tag || id === tag)
    const found = cable && entries(cable[1].cores).find(([id, c]) => id === name || c.colour?.value === name)
    const stop = cable?.[1].stops.find((s) => lookUp(site.places, s.place)?.tag === box)
    return cable && found && stop
      ? { kind: 'core', cable: cable[0], core: found[0], stop: stop.id, side: arrow === '<' ? 'arrives' : 'leaves' }
      : null
  }
  const [tag, port] = written.split('.')
  const device = deviceAt(site, tag ?? '')
  return device !== null && port ? { kind: 'port', device, port } : null
}

/** The joint that holds a written end, or has this id. */
export function jointAt(site: Site, written: string): SpliceId | null {
  if (Object.hasOwn(site.splices, written)) return written as SpliceId
  const end = endAt(site, written)
  return end && (entries(site.splices).find(([, s]) => s.ends.some((e) => endKey(e) === endKey(end)))?.[0] ?? null)
}

/** An end as `endAt` reads it: a joint is best named by a coil's port in it. */
export function endWritten(site: Site, splice: SpliceId): string {
  const { ends } = getOrThrow(site.splices, splice)
  const port = ends.find((e) => e.kind === 'port')
  if (port?.kind === 'port') return `${getOrThrow(site.devices, port.device).tag ?? port.device}.${port.port}`
  const core = ends.find((e) => e.kind === 'core')
  if (core?.kind !== 'core') return splice
  const cable = getOrThrow(site.cables, core.cable)
  const place = getOrThrow(site.places, cable.stops.find((s) => s.id === core.stop)!.place)
  return `${cable.tag ?? core.cable}/${core.core}@${place.tag}${core.side === 'arrives' ? '<' : '>'}`
}
