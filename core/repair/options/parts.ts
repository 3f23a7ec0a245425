import { create, freeId, remove, set, type Work } from '../../plan'
import { coded } from '../../refusal'
import { endKey, entries, getOrThrow, lookUp, SOUND, type DeviceId } from '../../site'
import type { RepairAsk, Tried, WhyNot } from '../repair'
import { triedWith } from '../tried'

/** The joint cut out and made anew. */
export function remadeJoint(ask: RepairAsk): Tried[] | WhyNot {
  const { damage, where } = ask
  const joint = where.kind === 'joint' ? lookUp(damage.site.splices, where.splice) : null
  if (!joint || where.kind !== 'joint') return coded('no_cable')
  const work: Work = { site: damage.site }
  const isScrew = joint.connector === 'terminal'
  // Whatever was known of its grips went out with it.
  const own = new Set(joint.ends.map(endKey))
  for (const [id, d] of entries(damage.site.defects))
    if ((d.kind === 'grip' || d.kind === 'leak') && own.has(endKey(d.end))) remove(work, 'defects', id)
  set(work, 'splices', where.splice, 'condition', SOUND)
  set(work, 'splices', where.splice, 'made', { value: ask.today, how: 'seen', on: ask.today })
  const tried = triedWith(ask, work, [joint.place])
  return [
    isScrew
      ? { ...tried, work: { ...tried.work, screw: 1 } }
      : { ...tried, work: { ...tried.work, joint: 1 }, parts: { ...tried.parts, connector: 1 } },
  ]
}

/** A new coil, or a new valve with its coil. */
export function newCoil(ask: RepairAsk, what: 'coil' | 'valve'): Tried[] | WhyNot {
  const { damage, where } = ask
  if (where.kind !== 'coil' && where.kind !== 'valve') return coded('no_cable')
  const { place } = getOrThrow(damage.site.devices, where.device)
  const work: Work = { site: damage.site }
  set(work, 'devices', where.device, 'condition', SOUND)
  set(work, 'devices', where.device, 'installed', { value: ask.today, how: 'seen', on: ask.today })
  // Its two leads are cut and joined anew, whatever else is new.
  const tried = triedWith(ask, work, [place])
  return [
    {
      ...tried,
      work: { ...tried.work, joint: 2, [what]: 1 },
      parts: { ...tried.parts, connector: 2, [what]: 1 },
    },
  ]
}

/** A module in the bay of the dead screw; one that is fixed has none. */
export function newModule(ask: RepairAsk): Tried[] | WhyNot {
  const { site, where } = ask
  if (where.kind !== 'terminal') return coded('no_bay')
  const { bays, fixedStations, place, terminals, tag } = getOrThrow(site.controllers, where.controller)
  const stations = entries(terminals)
    .filter(([, t]) => t.role === 'station')
    .sort(([, a], [, b]) => a.order - b.order)
  const number = stations.findIndex(([id]) => id === where.terminal)
  const isInBay = bays.some((b) => b.module?.kind === 'stations') && number >= (fixedStations ?? 0)
  if (!isInBay) return coded('no_bay', [], { controller: tag })
  return [triedWith(ask, { site: ask.damage.site }, [place], { work: { module: 1 }, parts: { module: 1 }, dead: [] })]
}

/** The transformer alone. */
export function newTransformer(ask: RepairAsk): Tried[] | WhyNot {
  const { site, where } = ask
  if (where.kind !== 'supply') return coded('no_cable')
  const { place } = getOrThrow(site.controllers, where.controller)
  return [
    triedWith(ask, { site: ask.damage.site }, [place], {
      work: { transformer: 1 },
      parts: { transformer: 1 },
      noSupply: null,
    }),
  ]
}

/** Two leads put back under the screws that the record has them under. */
export function swappedBack(ask: RepairAsk): Tried[] | WhyNot {
  const { site, where } = ask
  if (where.kind !== 'pair') return coded('no_cable')
  const { place } = getOrThrow(site.controllers, where.controller)
  return [triedWith(ask, { site }, [place], { work: { screw: 2, joint: 0 }, parts: { connector: 0, cap: 0 } })]
}

/** A master valve that keeps stations from working, opened by hand for now; it stands on record until it is undone. */
export function bypassedMaster(ask: RepairAsk): Tried[] | WhyNot {
  const { site, stopped } = ask
  const masters = new Set(
    stopped.flatMap((id): DeviceId[] => {
      const { pointOfConnection, withMaster } = getOrThrow(site.stations, id)
      const point = pointOfConnection && withMaster ? lookUp(site.pointsOfConnection, pointOfConnection) : null
      return point?.masterValve ? [point.masterValve] : []
    }),
  )
  const [master] = masters
  if (master === undefined) return coded('no_neighbour')
  const { place, tag } = getOrThrow(site.devices, master)
  const work: Work = { site: ask.damage.site }
  create(work, 'temporaryStates', freeId(site, 'temporaryStates', 'bypass'), {
    what: `${tag ?? master} bypassed`,
    place,
    since: ask.today,
  })
  return [triedWith(ask, work, [place], { work: { bypass: 1 }, bypassed: [master] })]
}
