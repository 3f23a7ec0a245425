import { LEAST_ohm, rated_A, type Edit, type Face, type Powered } from '../circuit'
import { accepted, refusal, refused, type Outcome } from '../refusal'
import { getOrThrow, lookUp, netsOf, outputsOf, type DeviceId, type Output, type PathAt, type Site } from '../site'

/** An output that is on, and whether its coils start or hold. */
export interface OutputOn {
  readonly output: Output
  readonly face: Face
}

/** A path that can be reckoned: its system says what it must. */
export type KnownPath = PathAt & { readonly system: NonNullable<PathAt['system']> & { readonly path_V: number } }

/** The path with its system, or which entry of the profile is missing: its maker's sheet is to be asked. */
export function knownPath(path: PathAt): Outcome<KnownPath> {
  if (path.system === null) return refused(refusal('path_without_system', ['controllers', path.controller, 'system']))
  const { system } = path
  const missing = (['path_V', 'minimum_V', 'idle_A', 'active_A'] as const).filter((field) => system[field] === null)
  return missing.length > 0
    ? refused(
        ...missing.map((field) => refusal('ask_the_sheet', ['systems', path.systemId!, field], { name: system.name })),
      )
    : accepted(path as KnownPath)
}

/** The outputs on a path, in the order of their numbers; those without one come last. */
export function outputsOn(site: Site, path: PathAt): Output[] {
  const on = new Set(path.decoders.map((d) => d.device))
  return outputsOf(site)
    .filter((o) => on.has(o.decoder))
    .sort((a, b) => (a.address ?? Infinity) - (b.address ?? Infinity))
}

/**
 * The outputs that answer to these numbers: all hold but those of the last number, which start. Two decoders that were
 * given one number both answer.
 */
export function outputsAnswering(site: Site, path: PathAt, numbers: readonly number[]): Outcome<OutputOn[]> {
  const outputs = outputsOn(site, path)
  const nobody = numbers.filter((n) => !outputs.some((o) => o.address === n))
  if (nobody.length > 0) return refused(...nobody.map((address) => refusal('no_such_number', ['--on'], { address })))
  const once = [...new Set(numbers)]
  return accepted(
    once.flatMap((n, i) =>
      outputs
        .filter((o) => o.address === n)
        .map((output): OutputOn => ({ output, face: i === once.length - 1 ? 'inrush' : 'holding' })),
    ),
  )
}

/** What a coil draws by its sheet, A; a usual coil's figure where none is on record. */
export function coil_A(site: Site, coil: DeviceId, face: Face): number {
  const { coilKind } = getOrThrow(site.devices, coil)
  return rated_A(coilKind === null ? null : (lookUp(site.coilKinds, coilKind) ?? null), face)
}

const [AB, BA] = [
  ['a', 'b'],
  ['b', 'a'],
]

/**
 * The edits that bring outputs on: each decoder draws what an active one does, and passes the path on to its coils,
 * ampere by ampere.
 */
export function outputEdits(powered: Powered, path: KnownPath, on: readonly OutputOn[]): Edit[] {
  const { site, conditions, nodeOf, wiring, parts } = powered
  const isCurrent = conditions.path === 'constant_current'
  const { idle_A, active_A, path_V } = path.system
  const port = (device: DeviceId, name: string) => nodeOf.get(wiring.pointOf({ kind: 'port', device, port: name }))!
  const nets = netsOf(wiring)
  const isOut = (device: DeviceId) => site.devices[device]!.condition.state === 'open'
  const edits: Edit[] = []
  for (const decoder of new Set(on.map((o) => o.output.decoder))) {
    const legs = path.decoders.find((d) => d.device === decoder)?.legs
    if (!legs || isOut(decoder)) continue
    const [a, b] = legs.map((leg) => nodeOf.get(leg)!) as [number, number]
    if (isCurrent) edits.push({ kind: 'draw', a, b, amps: { re: active_A! - idle_A!, im: 0 } })
    else {
      const z = { re: path_V / active_A!, im: 0 }
      const idle = parts.findIndex((p) => p.of.kind === 'decoder' && p.of.device === decoder)
      if (idle >= 0) edits.push({ kind: 'element', element: idle, z })
      else edits.push({ kind: 'bridge', a, b, ohm: z.re })
    }
    edits.push({ kind: 'bridge', a: b, b: port(decoder, 'common'), ohm: LEAST_ohm })
    for (const { output, face } of on.filter((o) => o.output.decoder === decoder)) {
      edits.push({ kind: 'bridge', a, b: port(decoder, output.port), ohm: LEAST_ohm })
      if (!isCurrent) continue
      const outward = nets.of(wiring.pointOf({ kind: 'port', device: decoder, port: output.port }))
      for (const coil of output.coils) {
        if (isOut(coil)) continue
        const ends = nets.of(wiring.pointOf({ kind: 'port', device: coil, port: 'a' })) === outward ? AB : BA
        const [from, to] = ends.map((end) => port(coil, end)) as [number, number]
        edits.push({ kind: 'draw', a: from, b: to, amps: { re: coil_A(site, coil, face), im: 0 } })
      }
    }
  }
  return edits
}
