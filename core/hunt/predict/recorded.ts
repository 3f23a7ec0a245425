import { endKey, entries, type DeviceId, type Site, type SpliceId } from '../../site'

/** What the record knows to be bad: it looks and feels so, whatever else is wrong. */
export interface Recorded {
  /** How surely a joint is, from 0 to 1. */
  readonly joints: ReadonlyMap<SpliceId, number>
  readonly coils: ReadonlySet<DeviceId>
}

/** A leak that begins at a joint may be the joint's or that of the core beyond. */
const LEAKING = 0.5

export function recordedOn(site: Site): Recorded {
  const ends = new Map(
    Object.values(site.defects).flatMap((d) =>
      d.kind === 'grip' || d.kind === 'leak' ? [[endKey(d.end), d.kind === 'grip' ? 1 : LEAKING] as const] : [],
    ),
  )
  const joints = entries(site.splices).flatMap(([id, { condition, ends: of }]) => {
    const p = condition.state === 'open' ? 1 : Math.max(...of.map((e) => ends.get(endKey(e)) ?? 0))
    return p > 0 ? [[id, p] as const] : []
  })
  const coils = entries(site.devices).flatMap(([id, d]) => (d.condition.state === 'open' ? [id] : []))
  return { joints: new Map(joints), coils: new Set(coils) }
}
