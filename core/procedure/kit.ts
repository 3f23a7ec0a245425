import type { KitItem, Procedure, WorkTarget } from '../record'
import { KIT } from '../record'
import { getOrThrow, type CoilKindId, type Site } from '../site'
import type { ConnectorKind } from '../splice'

/** A piece of work that is meant to be done. */
export interface Meant {
  readonly procedure: Procedure
  readonly target: WorkTarget
}
/** What is taken along: tools and small things once, connectors and coils by count. */
export interface Kit {
  readonly items: readonly KitItem[]
  readonly connectors: readonly { readonly kind: ConnectorKind; readonly count: number }[]
  readonly coils: readonly { readonly kind: CoilKindId | null; readonly count: number }[]
}

/** Connectors beyond those counted: one in ten is dropped, bitten wrong or needed for what nobody foresaw. */
const RESERVE_ratio = 0.1

/** Everything that some pieces of work need, each thing once, in one order; connectors with a tenth more. */
export function kitFor(site: Site, work: readonly Meant[]): Kit {
  const items = new Set(work.flatMap((w) => w.procedure.kit))
  const connectors = new Map<ConnectorKind, number>()
  const coils = new Map<CoilKindId | null, number>()
  for (const { procedure, target } of work) {
    if (target.kind === 'joint') {
      const { connector } = getOrThrow(site.splices, target.splice)
      if (connector !== 'unknown') connectors.set(connector, (connectors.get(connector) ?? 0) + 1)
    }
    if (target.kind === 'coil' && procedure.kit.includes('spare_coil')) {
      const { coilKind } = getOrThrow(site.devices, target.device)
      coils.set(coilKind, (coils.get(coilKind) ?? 0) + 1)
    }
  }
  return {
    items: KIT.filter((item) => items.has(item)),
    connectors: [...connectors].map(([kind, count]) => ({ kind, count: count + Math.ceil(count * RESERVE_ratio) })),
    coils: [...coils].map(([kind, count]) => ({ kind, count })),
  }
}
