import type { PartReport } from '../../core/hunt'
import type { Part } from '../../core/record'
import { getOrThrow, stopIndex, type Site } from '../../core/site'
import type { Strip } from '../../core/strip'

/** Parts less likely than this are not marked. */
const LEAST = 0.02

/** A stretch of a strip that may be at fault, metres along it, or a coil. */
export interface Mark {
  readonly from_m: number
  readonly to_m: number
  readonly p: number
  readonly coil?: boolean
}

/** Where the likely parts lie on a strip. */
export function marksOn(site: Site, strip: Strip, parts: readonly Pick<PartReport, 'where' | 'p'>[]): Mark[] {
  const along = (p: number, where: Extract<Part, { kind: 'run' | 'touch' }>, cores: readonly string[]): Mark[] => {
    const cable = getOrThrow(site.cables, where.cable)
    const [from, to] = [stopIndex(cable, where.from), stopIndex(cable, where.to)]
    const runs = strip.runs.filter(
      ({ link }) => link.cable === where.cable && cores.includes(link.core) && link.from >= from && link.to <= to,
    )
    return runs.length === 0
      ? []
      : [{ from_m: Math.min(...runs.map((r) => r.from_m)), to_m: Math.max(...runs.map((r) => r.to_m)), p }]
  }
  return parts
    .filter((p) => p.p >= LEAST)
    .flatMap(({ where, p }): Mark[] => {
      switch (where.kind) {
        case 'run':
          return along(p, where, [where.core])
        case 'touch':
          return along(p, where, [where.core, where.other])
        case 'coil':
        case 'valve':
          return strip.coils
            .filter((c) => c.device === where.device)
            .map(({ at_m }) => ({ from_m: at_m, to_m: at_m, p, coil: true }))
        case 'joint':
          return strip.joints
            .filter((j) => j.splice === where.splice)
            .map(({ at_m }) => ({ from_m: at_m, to_m: at_m, p }))
        case 'pair':
          return strip.terminal === where.one || strip.terminal === where.two ? [{ from_m: 0, to_m: 0, p }] : []
        case 'terminal':
          return strip.terminal === where.terminal ? [{ from_m: 0, to_m: 0, p }] : []
        case 'thread':
          return strip.terminal === where.terminal ? [{ from_m: 0, to_m: strip.length_m, p }] : []
        default:
          return []
      }
    })
}
