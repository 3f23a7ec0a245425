import { rated_A } from '../circuit'
import { accepted, refusal, refused, type Outcome, type Refusal } from '../refusal'
import {
  deviceName,
  entries,
  hangingOn,
  getOrThrow,
  wiringOf,
  type Command,
  type ControllerId,
  type DeviceId,
  type PointOfConnection,
  type PointOfConnectionId,
  type Site,
  type TerminalId,
} from '../site'

/** A controller serves at most so many points of connection. */
export const MOST_POINTS = 4

/** What hangs on a master terminal, holding, against what the terminal may carry. The pump itself never hangs there. */
export interface MasterSum {
  readonly terminal: TerminalId
  readonly devices: readonly { device: DeviceId; holding_A: number }[]
  readonly sum_A: number
  readonly limit_A: number
  readonly over: boolean
}

export function masterSums(site: Site, controller: ControllerId): MasterSum[] {
  const { terminals, masterLimit_A } = getOrThrow(site.controllers, controller)
  const hanging = hangingOn(site, wiringOf(site), controller)
  return entries(terminals)
    .filter(([, t]) => t.role === 'master')
    .map(([terminal]) => {
      const meant = Object.values(site.pointsOfConnection)
        .filter((p) => p.terminal?.controller === controller && p.terminal.terminal === terminal)
        .flatMap((p) => [p.masterValve, p.pumpRelay].filter((d) => d !== null))
      const devices = [...new Set([...(hanging.get(terminal)?.coils ?? []), ...meant])].map((device) => {
        const { coilKind } = getOrThrow(site.devices, device)
        return {
          device,
          holding_A: rated_A(coilKind === null ? null : getOrThrow(site.coilKinds, coilKind), 'holding'),
        }
      })
      const sum_A = devices.reduce((sum, d) => sum + d.holding_A, 0)
      return { terminal, devices, sum_A, limit_A: masterLimit_A, over: sum_A > masterLimit_A * (1 + 1e-9) }
    })
}

/**
 * What is wrong with a controller's points of connection, its sensor and its outputs, with the mend in the sentence.
 */
export function controllerRules(site: Site, controller: ControllerId): Refusal[] {
  const record = getOrThrow(site.controllers, controller)
  const path = ['controllers', controller]
  const wrong = masterSums(site, controller)
    .filter((s) => s.over)
    .map((s) =>
      refusal('master_over_limit', [...path, 'masterLimit_A'], {
        terminal: `${record.tag}:${record.terminals[s.terminal]!.tag}`,
        sum_A: round(s.sum_A),
        limit_A: s.limit_A,
        devices: s.devices.map((d) => deviceName(site, d.device)).join(', '),
      }),
    )
  if (record.sensor.closedBy === 'nothing')
    wrong.push(refusal('sensor_open', [...path, 'sensor'], { controller: record.tag }))
  if (record.sensor.closedBy === 'sensor' && record.sensor.dry === 'unknown')
    wrong.push(refusal('sensor_rest_unknown', [...path, 'sensor'], { controller: record.tag }))
  const points = pointsOf(site, controller)
  if (points.length > MOST_POINTS)
    wrong.push(refusal('too_many_points', ['pointsOfConnection'], { controller: record.tag, most: MOST_POINTS }))
  for (const [id, p] of points) {
    const onPath = (['masterValve', 'pumpRelay', 'flowSensor'] as const).filter(
      (d) => p[d] !== null && p.reached[d] === 'path',
    )
    if (onPath.length > 0 && record.kind === 'conventional')
      wrong.push(
        refusal('no_path_here', ['pointsOfConnection', id, 'reached'], { point: p.name, controller: record.tag }),
      )
    else if (onPath.includes('masterValve') || onPath.includes('pumpRelay'))
      wrong.push(refusal('path_jumper', ['pointsOfConnection', id, 'reached'], { point: p.name }))
    const others = points.filter(
      ([other, o]) => other !== id && o.terminal?.terminal === p.terminal?.terminal && p.terminal !== null,
    )
    if (others.length > 0 && others[0]![0] > id)
      wrong.push(
        refusal('terminal_shared', ['pointsOfConnection', id, 'terminal'], {
          point: p.name,
          other: others[0]![1].name,
        }),
      )
  }
  return wrong
}

const round = (x: number) => Math.round(x * 1000) / 1000

/** Points of connection that this controller runs, or that no controller runs yet. */
export const pointsOf = (site: Site, controller: ControllerId): [PointOfConnectionId, PointOfConnection][] =>
  entries(site.pointsOfConnection).filter(([, p]) => p.terminal === null || p.terminal.controller === controller)

/** The commands that add a point of connection with a master terminal of its own; a fifth is refused. */
export function newPointCommands(site: Site, controller: ControllerId, name: string): Outcome<Command[]> {
  const record = getOrThrow(site.controllers, controller)
  const points = pointsOf(site, controller)
  if (points.length >= MOST_POINTS)
    return refused(refusal('too_many_points', ['pointsOfConnection'], { controller: record.tag, most: MOST_POINTS }))
  const taken = new Set(points.flatMap(([, p]) => (p.terminal ? [p.terminal.terminal] : [])))
  const free = entries(record.terminals).find(([id, t]) => t.role === 'master' && !taken.has(id))
  const commands: Command[] = []
  let terminal = free?.[0] ?? null
  if (terminal === null) {
    let n = points.length + 1
    while (Object.values(record.terminals).some((t) => t.tag === tagOf(n)) || Object.hasOwn(record.terminals, tagOf(n)))
      n++
    terminal = tagOf(n) as TerminalId
    const order =
      1 +
      Math.max(
        0,
        ...Object.values(record.terminals)
          .filter((t) => t.role === 'common' || t.role === 'master')
          .map((t) => t.order),
      )
    commands.push({
      do: 'set',
      in: 'controllers',
      id: controller,
      field: 'terminals',
      value: { ...record.terminals, [terminal]: { tag: tagOf(n), role: 'master', label: '', order } },
    })
  }
  let id = `${controller}-supply`
  for (let n = 2; Object.hasOwn(site.pointsOfConnection, id); n++) id = `${controller}-supply-${n}`
  return accepted([
    ...commands,
    { do: 'create', in: 'pointsOfConnection', id, record: { name, terminal: { controller, terminal } } },
  ])
}

const tagOf = (n: number) => (n === 1 ? 'MV' : `MV${n}`)
