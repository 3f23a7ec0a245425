import { LEAST_ohm, solverOf, type Element, type Powered } from '../circuit'
import { commonOf, entries, terminalEnd, type ControllerId, type DeviceId, type End, type TerminalId } from '../site'

/**
 * Where one ampere through a coil flows, out and home: elements of the powered network with their share of it, signed
 * by their own direction.
 */
export interface Way {
  readonly elements: Int32Array
  readonly shares: Float64Array
}

/** Shares below this are rounding. */
const NO_SHARE = 1e-9

/**
 * The way of an ampere from a terminal through a coil to the common, coils taken as insulators. In wiring without loops
 * this is a path and does not depend on sizes; side by side cores of one jacket share alike whatever the size. Null
 * where the record shows no way.
 */
export function waysOf(
  powered: Powered,
): (controller: ControllerId, terminal: TerminalId, device: DeviceId) => Way | null {
  const elements: Element[] = []
  const places: number[] = []
  powered.parts.forEach((part, place) => {
    if (part.of.kind === 'coil' || part.of.kind === 'source') return
    elements.push({ a: part.a, b: part.b, ohm: part.z.re, link: null })
    places.push(place)
  })
  // Every output of a sequencer has its turn some time.
  for (const [device, record] of entries(powered.site.devices)) {
    if (record.kind !== 'sequencer') continue
    const node = (port: string) => powered.nodeOf.get(powered.wiring.pointOf({ kind: 'port', device, port } as End))
    for (let n = 2; n <= record.outputs; n++) {
      const [a, b] = [node('in'), node(`out_${n}`)]
      if (a !== undefined && b !== undefined) {
        elements.push({ a, b, ohm: LEAST_ohm, link: null })
        places.push(-1)
      }
    }
  }
  const solver = solverOf({ nodeCount: powered.nodeCount, elements, nodeOf: powered.nodeOf, wiring: powered.wiring })
  const coils = new Map(
    powered.parts.flatMap((part) => (part.of.kind === 'coil' ? [[part.of.device, part] as const] : [])),
  )
  return (controller, terminal, device) => {
    const coil = coils.get(device)
    const common = commonOf(powered.site, controller)
    const at = (t: TerminalId) => powered.nodeOf.get(powered.wiring.pointOf(terminalEnd(controller, t)))
    const [out, home] = [at(terminal), common === null ? undefined : at(common)]
    if (!coil || out === undefined || home === undefined) return null
    const turned = !solver.connected(out, coil.a)
    const [near, far] = turned ? [coil.b, coil.a] : [coil.a, coil.b]
    if (!solver.connected(out, near) || !solver.connected(far, home)) return null
    const [there, back] = [solver.potentials(out, near), solver.potentials(far, home)]
    const found: [number, number][] = []
    elements.forEach(({ a, b, ohm }, i) => {
      const share = (there[a]! - there[b]! + back[a]! - back[b]!) / ohm
      if (Math.abs(share) > NO_SHARE && places[i]! >= 0)
        found.push([places[i]!, Math.abs(Math.abs(share) - 1) < NO_SHARE ? Math.sign(share) : share])
    })
    return { elements: Int32Array.from(found, ([e]) => e), shares: Float64Array.from(found, ([, s]) => s) }
  }
}
