import { endKey, type Site } from '../core/site'

const COPPER_OHM_MM2_PER_M = 0.017241

/**
 * Ohms between two terminals worked out the plain way, from the records alone and with nothing of the product's
 * network or solver: one node for every end, conductance matrix in full, Gauss with partial pivoting. Sound parts of
 * known size only.
 * @returns Infinity where the matrix shows no way
 */
export function plainOhms(site: Site, from: string, to: string): number {
  const nodes = new Map<string, number>()
  const node = (key: string) => nodes.get(key) ?? nodes.set(key, nodes.size).get(key)!
  const parts: [number, number, number][] = []
  for (const [cableId, cable] of Object.entries(site.cables)) {
    for (const [coreId, core] of Object.entries(cable.cores)) {
      const gauge = (core.gauge ?? cable.gauge)!.value
      const area = 'area_mm2' in gauge ? gauge.area_mm2 : (Math.PI / 4) * (0.127 * 92 ** ((36 - gauge.awg) / 39)) ** 2
      const cuts = [
        0,
        ...cable.stops.flatMap((s, i) => ((core.cutAt as readonly string[]).includes(s.id) ? [i] : [])),
        cable.stops.length - 1,
      ]
      for (let k = 0; k + 1 < cuts.length; k++) {
        const [a, b] = [cable.stops[cuts[k]!]!, cable.stops[cuts[k + 1]!]!]
        const length = (b.at_m as { value: number }).value - (a.at_m as { value: number }).value
        parts.push([
          node(`core ${cableId} ${coreId} ${a.id} leaves`),
          node(`core ${cableId} ${coreId} ${b.id} arrives`),
          (length * COPPER_OHM_MM2_PER_M) / area,
        ])
      }
    }
  }
  for (const [id, device] of Object.entries(site.devices))
    if (device.coilKind)
      parts.push([node(`port ${id} a`), node(`port ${id} b`), site.coilKinds[device.coilKind]!.resistance_ohm])
  for (const [id, splice] of Object.entries(site.splices))
    for (const end of splice.ends)
      parts.push([
        node(`middle ${id}`),
        node(endKey(end)),
        splice.connector === 'terminal' ? 1e-7 : site.settings.soundSplice_ohm / 2,
      ])
  const [start, finish] = [node(`terminal A ${from}`), node(`terminal A ${to}`)]

  const n = nodes.size
  const g = Array.from({ length: n }, () => new Float64Array(n + 1))
  for (const [a, b, ohm] of parts) {
    g[a]![a]! += 1 / ohm
    g[b]![b]! += 1 / ohm
    g[a]![b]! -= 1 / ohm
    g[b]![a]! -= 1 / ohm
  }
  // A hair of leakage everywhere keeps unjoined parts from making the matrix singular.
  for (let i = 0; i < n; i++) g[i]![i]! += 1e-12
  g[start]![n] = 1
  g[finish]!.fill(0)
  g[finish]![finish] = 1
  for (let k = 0; k < n; k++) {
    let pivot = k
    for (let r = k + 1; r < n; r++) if (Math.abs(g[r]![k]!) > Math.abs(g[pivot]![k]!)) pivot = r
    const row = g[pivot]!
    g[pivot] = g[k]!
    g[k] = row
    for (let r = k + 1; r < n; r++) {
      const factor = g[r]![k]! / row[k]!
      if (factor !== 0) for (let c = k; c <= n; c++) g[r]![c]! -= factor * row[c]!
    }
  }
  const volts = new Float64Array(n)
  for (let k = n - 1; k >= 0; k--) {
    let rest = g[k]![n]!
    for (let c = k + 1; c < n; c++) rest -= g[k]![c]! * volts[c]!
    volts[k] = rest / g[k]![k]!
  }
  return volts[start]! > 1e8 ? Infinity : volts[start]!
}
