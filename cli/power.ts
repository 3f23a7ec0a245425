import type * as z from 'zod'
import {
  answerOf,
  climateOf,
  closings,
  conditionsFor,
  engineOf,
  poweredOf,
  runningOf,
  type Edit,
  type Powered,
  type Running,
  type TerminalAt,
  type CoilAnswer,
  type Told,
} from '../core/circuit'
import { probeAt, writeDeck, type Property } from '../core/formats'
import { knownPath, outputEdits, outputsAnswering } from '../core/path'
import { accepted, refusal, refused, type Outcome } from '../core/refusal'
import { getOrThrow, pathsOf, type DeviceId, type PathAt, type Site } from '../core/site'
import type { Arguments } from './flags'
import type { deckOutput, solveOutput } from './output'

type Flags = Arguments['flags']
type Solve = z.infer<typeof solveOutput>
type Deck = z.infer<typeof deckOutput>

const STATES_TOLD = ['inrush', 'holding', 'off'] as const

/** Volts, currents and what pulls in and holds, with the given stations on. */
export function solve({ site }: Property, flags: Flags): Outcome<Solve> {
  const set = setUp(site, flags)
  if (!set.ok) return set
  const { powered, edits, running } = set.value
  const engine = engineOf(powered)
  const solution = engine.solve(edits)
  const answer = answerOf(engine, solution)
  const worst = safely(powered, edits)
  const { conditions, names, parts } = powered
  const tag = (id: string, of: Record<string, { tag: string | null }>) => getOrThrow(of, id).tag ?? id
  const home = powered.sources[0]?.common
  const nodes = names.map((name, node): Solve['nodes'][number] => {
    const floating = solution.floating(node)
    const { re, im } = solution.volts(node)
    return {
      name: node === home ? '0' : name,
      floating,
      re_V: floating ? null : re,
      im_V: floating ? null : im,
      volt_V: floating ? null : Math.hypot(re, im),
    }
  })
  const conductor = new Map(answer.conductors.map((c) => [c.link, c]))
  const nameOf = (node: number) => nodes[node]!.name
  return accepted({
    verb: 'solve',
    property: site.about.name,
    hz: conditions.frequency_Hz,
    phase: conditions.phase,
    ...conditions.climate,
    mains_ratio: conditions.mains_ratio,
    on: running.live.map((t) => tagOf(site, t)),
    coils: answer.coils.map((c) => ({
      device: tag(c.device, site.devices),
      face: c.face,
      volt_V: c.volt_V,
      current_A: c.current_A,
      minimum_V: c.minimum_V,
      enough: c.enough,
      safe_V: worst.get(c.device)?.volt_V ?? 0,
      safe_enough: worst.get(c.device)?.enough ?? false,
    })),
    conductors: parts.flatMap((part) => {
      if (part.of.kind !== 'stretch') return []
      const { link, current_A, volt_V } = conductor.get(part.of)!
      return [
        {
          cable: tag(link.cable, site.cables),
          core: link.core,
          from: nameOf(part.a),
          to: nameOf(part.b),
          ohm: part.z.re,
          current_A,
          volt_V,
        },
      ]
    }),
    joints: answer.joints.map((j) => ({
      splice: j.splice,
      place: getOrThrow(site.places, getOrThrow(site.splices, j.splice).place).tag,
      volt_V: j.volt_V,
      current_A: j.current_A,
    })),
    supplies: answer.supplies.map((s) => ({
      controller: getOrThrow(site.controllers, s.controller).tag,
      terminal_V: s.terminal_V,
      current_A: s.current_A,
      load_VA: s.load_VA,
      rating_VA: s.rating_VA,
    })),
    nodes,
  })
}

/** The coils in the safe phase. */
function safely(powered: Powered, edits: readonly Edit[]): Map<DeviceId, CoilAnswer> {
  const engine = engineOf(
    poweredOf(powered.site, { ...powered.conditions, phase: 'safe' }, powered.sources[0]?.controller),
  )
  return new Map(answerOf(engine, engine.solve(edits)).coils.map((c) => [c.device, c]))
}

/** The same network as a SPICE deck. */
export function deck({ site }: Property, flags: Flags): Outcome<Deck> {
  const set = setUp(site, flags)
  return set.ok ? accepted({ verb: 'deck', deck: writeDeck(set.value.powered, set.value.edits) }) : set
}

function setUp(site: Site, flags: Flags): Outcome<{ powered: Powered; edits: Edit[]; running: Running }> {
  const list = (text: string | undefined) =>
    (text ?? '')
      .split(',')
      .map((t) => t.trim())
      .filter((t) => t !== '')
  const wrong = [] as ReturnType<typeof refusal>[]
  const at = (written: string, flag: string): TerminalAt | null => {
    const probe = probeAt(site, written)
    if (!probe) wrong.push(refusal('no_such_terminal', [flag], { terminal: written }))
    return probe && { controller: probe.controller, terminal: probe.terminal }
  }
  // A number on a path is no screw: `D:12` where D has no screw 12 but a path with a decoder of that number.
  const path = pathsOf(site).find((p) => knownPath(p).ok) ?? null
  const numbers = list(flags.on).flatMap((written) => pathNumber(site, path, written) ?? [])
  const on = list(flags.on)
    .filter((written) => pathNumber(site, path, written) === null)
    .flatMap((written) => at(written, '--on') ?? [])
  const answering = path && numbers.length > 0 ? outputsAnswering(site, path, numbers) : accepted([])
  if (!answering.ok) return answering
  const told = list(flags.state).flatMap((written) => {
    const [where = '', as = ''] = written.split('=')
    if (!(STATES_TOLD as readonly string[]).includes(as)) {
      wrong.push(refusal('not_one_of', ['--state'], { options: STATES_TOLD.map((t) => `A:3=${t}`).join(', ') }))
      return []
    }
    const t = at(where, '--state')
    return t ? [{ ...t, as: as as Told }] : []
  })
  const hz = flags.hz === undefined ? site.settings.mains_Hz : (Number(flags.hz) as 0 | 50 | 60)
  if (wrong.length > 0) return refused(...wrong)
  const running = runningOf(site, on, told)
  if (!running.ok) return running
  const climate = climateOf(
    site,
    flags.ground ?? site.settings.ground_C,
    flags.coil ?? (flags.ground === undefined ? site.settings.coil_C : null),
  )
  const behind = answering.value.flatMap(({ output, face }) => output.coils.map((coil) => [coil, face] as const))
  const powered = poweredOf(
    site,
    conditionsFor(
      { ...running.value, faces: new Map([...running.value.faces, ...behind]) },
      {
        climate,
        frequency_Hz: hz,
        phase: flags.phase,
        mains_ratio: flags.mains,
        wire: 'nominal',
        ...(path && { path: flags.load === 'current' ? 'constant_current' : 'constant_impedance' }),
      },
    ),
    running.value.live[0]?.controller,
  )
  const known = path && knownPath(path)
  const edits = [
    ...closings(powered, running.value.live),
    ...(known?.ok ? outputEdits(powered, known.value, answering.value) : []),
  ]
  return accepted({ powered, edits, running: running.value })
}

/** The number that is written, where the path’s controller has no screw of that tag; null for a screw. */
function pathNumber(site: Site, path: PathAt | null, written: string): number | null {
  if (!path) return null
  const { tag, terminals } = getOrThrow(site.controllers, path.controller)
  const [controller, number = ''] = written.split(':')
  const isScrew = Object.values(terminals).some((t) => t.tag === number)
  return controller === tag && /^\d{1,4}$/.test(number) && !isScrew ? Number(number) : null
}

const tagOf = (site: Site, t: TerminalAt): string => {
  const controller = getOrThrow(site.controllers, t.controller)
  return `${controller.tag}:${getOrThrow(controller.terminals, t.terminal).tag}`
}

/** The same as lines for a person: what each controller gives, then what every coil gets of what it asks. */
export const solveLines = ({ supplies, coils }: Solve): string[] => [
  ...supplies
    .filter((s) => s.current_A > 0)
    .map((s) => {
      const load = `${s.load_VA.toFixed(1)} VA${s.rating_VA === null ? '' : ` of ${s.rating_VA}`}`
      return `${s.controller}: ${s.terminal_V.toFixed(2)} V at the terminals, ${s.current_A.toFixed(3)} A, ${load}`
    }),
  ...coils.map((c) => {
    const gets = `${c.volt_V.toFixed(2).padStart(6)} V  ${c.current_A.toFixed(3)} A  ${c.face.padEnd(7)}`
    const asks = `(${c.minimum_V} V asked; ${c.safe_V.toFixed(2)} V at the safe phase)`
    return `${c.device.padEnd(8)} ${gets} ${c.enough ? 'enough' : 'too little'} ${asks}`
  }),
]
