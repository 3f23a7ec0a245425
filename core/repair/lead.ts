import {
  commonOf,
  entries,
  getOrThrow,
  knownAgainst,
  netsOf,
  terminalEnd,
  wiringOf,
  type CableId,
  type CoreId,
  type Site,
  type TerminalAt,
} from '../site'

/** A stretch of one core, by the numbers of two stops along its cable. */
export interface Way {
  readonly cable: CableId
  readonly core: CoreId
  readonly from: number
  readonly to: number
}

/** The cores that lie on a screw’s lead, each from the first of its stops that it reaches to the last. */
export function leadWays(site: Site, { controller, terminal }: TerminalAt): Way[] {
  const wiring = wiringOf(site)
  const nets = netsOf(wiring)
  const own = nets.of(wiring.pointOf(terminalEnd(controller, terminal)))
  const common = commonOf(site, controller)
  if (common !== null && nets.of(wiring.pointOf(terminalEnd(controller, common))) === own) return []
  const ways = new Map<string, Way>()
  for (const link of wiring.links) {
    if (link.kind !== 'stretch' || nets.of(link.a) !== own) continue
    if (getOrThrow(site.cables, link.cable).kind === 'jumper') continue
    const key = `${link.cable} ${link.core}`
    const was = ways.get(key)
    ways.set(key, {
      cable: link.cable,
      core: link.core,
      from: Math.min(was?.from ?? link.from, link.from),
      to: Math.max(was?.to ?? link.to, link.to),
    })
  }
  return [...ways.values()]
}

/** Cores of a cable that serve nothing and that nothing is known against. */
export function soundSpares(site: Site, id: CableId): CoreId[] {
  const cable = getOrThrow(site.cables, id)
  const joined = new Set(
    entries(site.splices).flatMap(([, s]) =>
      s.connector === 'cap' ? [] : s.ends.flatMap((e) => (e.kind === 'core' && e.cable === id ? [e.core] : [])),
    ),
  )
  return entries(cable.cores)
    .filter(
      ([core, c]) =>
        !joined.has(core) && knownAgainst(site, id, core) === null && (c.pinned === null || c.pinned.use !== 'station'),
    )
    .sort(([, a], [, b]) => a.order - b.order)
    .map(([core]) => core)
}
