import type { Settings, Splice } from '../site'

/** A connector that is carried, with what its marking says it holds; areas are of copper, mm². */
export type Connector = Settings['wiring']['connectors'][number]
export type ConnectorKind = Splice['connector']

/**
 * Usual limits where the property names none. A small gel crimp takes one conductor a port, three ports, up to 1.5 mm²;
 * nuts hold what is marked on them. See docs/numbers.md.
 */
const USUAL: readonly Connector[] = [
  { kind: 'gel_crimp_3', least: 2, most: 3, thinnest_mm2: 0.4, thickest_mm2: 1.5, together_mm2: 4.5 },
  { kind: 'nut_and_gel_tube', least: 2, most: 5, thinnest_mm2: 0.5, thickest_mm2: 5.3, together_mm2: 10.6 },
  { kind: 'gel_nut', least: 2, most: 4, thinnest_mm2: 0.5, thickest_mm2: 3.4, together_mm2: 8.4 },
  { kind: 'solder_heatshrink', least: 2, most: 4, thinnest_mm2: 0.3, thickest_mm2: 8.4, together_mm2: 21 },
]

/** The connectors that are carried, the preferred first. The usual van has crimps and nuts. */
export function carried(settings: Settings): readonly Connector[] {
  return settings.wiring.connectors.length > 0 ? settings.wiring.connectors : USUAL.slice(0, 2)
}

/** The limits of a kind on this property, also where it is not carried; null for kinds without any. */
export function limitsOf(settings: Settings, kind: ConnectorKind): Connector | null {
  return settings.wiring.connectors.find((c) => c.kind === kind) ?? USUAL.find((c) => c.kind === kind) ?? null
}

/** Copper to bare, mm; null where the connector bites through the insulation. */
export const STRIP_mm: Readonly<Record<ConnectorKind, number | null>> = {
  gel_crimp_3: null,
  nut_and_gel_tube: 19,
  gel_nut: 19,
  solder_heatshrink: 19,
  dry_nut: 19,
  bare_twist: null,
  terminal: 12,
  cap: null,
  unknown: null,
}

/**
 * When the joint is tried from the controller: two-part kinds before they are sealed, the others before they are
 * bundled.
 */
export type HoldPoint = 'before_sealing' | 'before_bundling' | 'none'
export function holdPointOf(kind: ConnectorKind): HoldPoint {
  if (kind === 'nut_and_gel_tube' || kind === 'solder_heatshrink') return 'before_sealing'
  return kind === 'gel_crimp_3' || kind === 'gel_nut' ? 'before_bundling' : 'none'
}

/** What a connector would be asked to hold and cannot. */
export interface Misfit {
  readonly code: 'too_many' | 'too_few' | 'too_thick' | 'too_thin' | 'too_full'
  readonly is: number
  readonly limit: number
}

/** Why a connector does not take these conductors, or null where it does. Every conductor has a port of its own. */
export function misfitOf(connector: Connector, areas_mm2: readonly number[]): Misfit | null {
  const together = areas_mm2.reduce((sum, a) => sum + a, 0)
  const [thinnest, thickest] = [Math.min(...areas_mm2), Math.max(...areas_mm2)]
  if (areas_mm2.length > connector.most) return { code: 'too_many', is: areas_mm2.length, limit: connector.most }
  if (thickest > connector.thickest_mm2 * ROUNDING)
    return { code: 'too_thick', is: thickest, limit: connector.thickest_mm2 }
  if (thinnest < connector.thinnest_mm2 / ROUNDING)
    return { code: 'too_thin', is: thinnest, limit: connector.thinnest_mm2 }
  if (together > connector.together_mm2 * ROUNDING)
    return { code: 'too_full', is: together, limit: connector.together_mm2 }
  return areas_mm2.length < connector.least ? { code: 'too_few', is: areas_mm2.length, limit: connector.least } : null
}

/** Areas come from a formula for AWG and are written to two figures on connectors: a thousandth more still fits. */
const ROUNDING = 1.001
