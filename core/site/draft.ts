import type { Gauge } from '../quantity'
import type { Outcome } from '../refusal'
import { applyBatch } from './apply'
import { looseCommand, type Command } from './command'
import type { DeviceKind } from './device'
import { emptySite, type CollectionName, type Site } from './site'

interface CableDraft {
  gauge: Gauge | null
  kind?: 'multicore' | 'single' | 'twisted_pair'
  /** Tags of places with metres along the jacket; null for a position not known. */
  stops: [place: string, at_m: number | null][]
  /** Colours, each also the core's name; `name=colour` where a colour comes twice. */
  cores: string[]
}

/** Records under construction: the parts of them that the draft itself comes back to. */
interface Drafted {
  record: Record<string, unknown>
  in: CollectionName
  id: string
}

/**
 * Writes a site in a few lines, for demos, tests and plans: places, cables and joints named by their tags, ids made
 * from the tags, cuts made where an inner stop is joined. Everything goes through commands, so it is checked like
 * any other change. Ends are written `K1.red<` (arriving here), `K1.red>` (leaving here), `V1.a` (a port), `A:3` (a
 * terminal) and `earth`.
 */
export class Draft {
  private readonly drafted: Drafted[] = []
  private readonly changes: Command[] = []
  private joints = 0

  constructor(private readonly name: string) {}

  private add(into: CollectionName, tag: string, record: Record<string, unknown>): this {
    this.drafted.push({ in: into, id: idOf(tag), record })
    return this
  }

  private find(into: CollectionName, tag: string): Record<string, unknown> | undefined {
    return this.drafted.find((d) => d.in === into && d.id === idOf(tag))?.record
  }

  setting(field: string, value: unknown): this {
    this.changes.push(looseCommand({ do: 'setSetting', field, value }))
    return this
  }

  about(field: string, value: unknown): this {
    this.changes.push(looseCommand({ do: 'setAbout', field, value }))
    return this
  }

  place(
    tag: string,
    kind: 'cabinet' | 'valve_box' | 'junction_box' = 'valve_box',
    more: Record<string, unknown> = {},
  ): this {
    return this.add('places', tag, { tag, kind, ...more })
  }

  /** A controller in a place with `stations` terminals, C, and MV where it has a master terminal. */
  controller(tag: string, place: string, stations: number, more: Record<string, unknown> = {}): this {
    const tags = ['C', 'MV', ...Array.from({ length: stations }, (_, i) => String(i + 1))]
    const role = (t: string) => (t === 'C' ? 'common' : t === 'MV' ? 'master' : 'station')
    const terminals = Object.fromEntries(tags.map((t, order) => [t, { tag: t, role: role(t), order }]))
    return this.add('controllers', tag, { tag, name: tag, place: idOf(place), terminals, ...more })
  }

  /** How the two-wire path of a controller works: a profile, as the schema has it. */
  system(tag: string, record: Record<string, unknown>): this {
    return this.add('systems', tag, record)
  }

  coilKind(tag: string, resistance_ohm: number, more: Record<string, unknown> = {}): this {
    return this.add('coilKinds', tag, { name: tag, resistance_ohm, ...more })
  }

  cable(
    tag: string,
    { gauge, kind = 'multicore', stops, cores }: CableDraft,
    more: Record<string, unknown> = {},
  ): this {
    return this.add('cables', tag, {
      tag,
      kind,
      gauge: gauge && { value: gauge, how: 'seen' },
      ...more,
      stops: stops.map(([place, at_m]) => ({
        id: idOf(place),
        place: idOf(place),
        at_m: at_m === null ? null : { value: at_m, how: 'seen' },
      })),
      cores: Object.fromEntries(
        cores.map((written, order) => {
          const [id, colour] = written.includes('=') ? (written.split('=') as [string, string]) : [written, written]
          return [idOf(id), { colour: { value: colour, how: 'seen' }, cutAt: [], order }]
        }),
      ),
    })
  }

  /** Fields of one core that differ from its cable's, or its condition. */
  core(cable: string, core: string, more: Record<string, unknown>): this {
    const found = this.find('cables', cable) as { cores: Record<string, Record<string, unknown>> } | undefined
    if (!found?.cores[idOf(core)]) throw new Error(`Draft ${this.name}: no core ${core} in ${cable}`)
    Object.assign(found.cores[idOf(core)]!, more)
    return this
  }

  device(
    tag: string,
    kind: DeviceKind,
    place: string,
    coilKind: string | null = null,
    more: Record<string, unknown> = {},
  ): this {
    return this.add('devices', tag, { tag, kind, place: idOf(place), coilKind: coilKind && idOf(coilKind), ...more })
  }

  valve(tag: string, place: string, coilKind: string | null, more: Record<string, unknown> = {}): this {
    return this.device(tag, 'coil', place, coilKind, more)
  }

  station(terminal: string, name: string, valves: string[], more: Record<string, unknown> = {}): this {
    const [controller, t] = terminal.split(':') as [string, string]
    return this.add('stations', `${controller}-${t}`, {
      controller: idOf(controller),
      terminal: idOf(t),
      name,
      valves: valves.map(idOf),
      ...more,
    })
  }

  /** A station on the path of a controller: the number that its decoder answers to. */
  pathStation(
    controller: string,
    screw: string,
    address: number,
    name: string,
    valves: string[],
    more: Record<string, unknown> = {},
  ): this {
    return this.add('stations', `${controller}-n${address}`, {
      controller: idOf(controller),
      terminal: idOf(screw),
      address,
      name,
      valves: valves.map(idOf),
      ...more,
    })
  }

  /** Something known to be wrong and left. */
  defect(tag: string, record: Record<string, unknown>): this {
    return this.add('defects', tag, record)
  }

  pointOfConnection(tag: string, record: Record<string, unknown>): this {
    return this.add('pointsOfConnection', tag, record)
  }

  /** A program of a controller: its runs are stations by their screws, `3`, or by their numbers, `#104`. */
  program(controller: string, name: string, runs: [station: string, minutes: number][], more: Record<string, unknown>) {
    const order = this.drafted.filter((d) => d.in === 'programs').length
    const path = this.find('controllers', controller)?.terminals as Record<string, { role: string }> | undefined
    const screw = Object.entries(path ?? {}).find(([, t]) => t.role === 'path')?.[0]
    return this.add('programs', `${controller}-${name}`, {
      controller: idOf(controller),
      name,
      order,
      runs: runs.map(([station, minutes]) =>
        station.startsWith('#')
          ? { terminal: screw, address: Number(station.slice(1)), minutes }
          : { terminal: idOf(station), minutes },
      ),
      ...more,
    })
  }

  /** Joins ends at a place; with a terminal among them it is a landing, with one end alone a cap. */
  join(place: string, ends: string[], connector = 'gel_nut', more: Record<string, unknown> = {}): this {
    const parsed = ends.map((written) => this.end(place, written))
    const lands = parsed.some((e) => e.kind === 'terminal')
    return this.add('splices', `${place}-j${++this.joints}`, {
      place: idOf(place),
      connector: lands ? 'terminal' : ends.length === 1 ? 'cap' : connector,
      ends: parsed,
      ...more,
    })
  }

  private end(place: string, written: string): Record<string, unknown> & { kind: string } {
    const core = /^(.+)\.(.+)([<>])$/.exec(written)
    if (core) {
      const [, cable, name, arrow] = core as unknown as [string, string, string, string]
      this.cutHere(cable, name, place)
      return {
        kind: 'core',
        cable: idOf(cable),
        core: idOf(name),
        stop: idOf(place),
        side: arrow === '<' ? 'arrives' : 'leaves',
      }
    }
    if (written === 'earth') return { kind: 'earth', place: idOf(place) }
    const [controller, terminal] = written.split(':')
    if (terminal !== undefined) return { kind: 'terminal', controller: idOf(controller!), terminal: idOf(terminal) }
    const [device, port] = written.split('.')
    return { kind: 'port', device: idOf(device!), port }
  }

  private cutHere(cable: string, core: string, place: string): void {
    const found = this.find('cables', cable) as
      { stops: { id: string }[]; cores: Record<string, { cutAt: string[] }> } | undefined
    const index = found?.stops.findIndex((s) => s.id === idOf(place)) ?? -1
    const cutAt = found?.cores[idOf(core)]?.cutAt
    if (found && cutAt && index > 0 && index < found.stops.length - 1 && !cutAt.includes(idOf(place)))
      cutAt.push(idOf(place))
  }

  commands(): Command[] {
    return [
      ...this.changes,
      ...this.drafted.map((d) => looseCommand({ do: 'create', in: d.in, id: d.id, record: d.record })),
    ]
  }

  /** The site, or what stands in its way. */
  outcome(): Outcome<Site> {
    const applied = applyBatch(emptySite(this.name), this.commands())
    return applied.ok ? { ok: true, value: applied.value.site } : applied
  }

  /** The site; throws where the draft is wrong, which is its writer's mistake. */
  site(): Site {
    const outcome = this.outcome()
    if (!outcome.ok) throw new Error(`Draft ${this.name}: ${JSON.stringify(outcome.refusals)}`)
    return outcome.value
  }
}

const idOf = (tag: string) => tag.replace(/[^A-Za-z0-9_-]+/g, '-')
