import * as z from 'zod'
import { climateOf } from '../../core/circuit'
import { sceneOf } from '../../core/expect'
import { coilsAsRead, goodReadings, pastOf } from '../../core/history'
import { COMMON_METER } from '../../core/record'
import { knownPath } from '../../core/path'
import { entries, pathsOf } from '../../core/site'
import {
  chance,
  controllerOn,
  drawPathFault,
  fieldOf,
  groundOf,
  meterOn,
  pathFieldOf,
  pathMeterOn,
  readFault,
  wandOn,
  type FieldFault,
  type MeterSession,
} from '../../standins'
import { actingAs, DEFAULT_ACTOR } from '../db/actor'
import { readFacts } from '../db/facts'
import { presentSite } from '../db/sites'
import { database } from '../utils/database'

const asked = z.strictObject({
  property: z.uuid(),
  seed: z.coerce.number().int().min(0).max(4294967295).default(1),
  /** As whoever reads took it to be; the property’s usual one where it is not told. */
  ground_C: z.coerce.number().min(-40).max(80).nullable().default(null),
  fault: z.array(z.string().max(200)).max(8).default([]),
  /** A controller, where its two-wire path is to be read; the seed draws what is wrong with it. */
  path: z.string().max(80).nullable().default(null),
})
/** Longest line that is listened to: a test in JSON, quoted. */
const LONGEST = 4000
/** Lines that may wait for their answer, and meters that may be connected at once. */
const MOST_WAITING = 32
const MOST_METERS = 16

/** One connection: its meter once it is there, and the lines that wait, answered one after the other. */
interface Connection {
  readonly meter: Promise<MeterSession | null>
  waiting: number
  last: Promise<void>
}
const connections = new Map<string, Connection>()

/**
 * A simulated meter, a wand and a controller on a property with hidden faults, for practice: plain SCPI over a
 * WebSocket. Pages of other sites do not come so far.
 */
export default defineWebSocketHandler({
  open(peer) {
    if (connections.size >= MOST_METERS) {
      peer.close(1013, 'too many meters are connected')
      return
    }
    const meter = sessionFor(new URL(peer.request?.url ?? '/', 'http://localhost').searchParams)
      .catch(() => 'the records cannot be reached')
      .then((made) => {
        if (typeof made !== 'string') return made
        peer.close(1008, made.slice(0, 120))
        return null
      })
    connections.set(peer.id, { meter, waiting: 0, last: Promise.resolve() })
  },
  message(peer, message) {
    const connection = connections.get(peer.id)
    if (!connection) return
    const text = message.text()
    if (text.length > LONGEST) return // not heard, as by a meter whose line is full
    if (connection.waiting >= MOST_WAITING) {
      connections.delete(peer.id)
      peer.close(1009, 'too many lines wait')
      return
    }
    connection.waiting++
    connection.last = connection.last.then(async () => {
      const answer = (await connection.meter)?.hear(text) ?? null
      connection.waiting--
      if (answer !== null) peer.send(answer)
      await new Promise(setImmediate) // others get their turn between two answers
    })
  },
  close(peer) {
    connections.delete(peer.id)
  },
})

/** A meter for what was asked for, or why there is none. */
async function sessionFor(query: URLSearchParams): Promise<MeterSession | string> {
  const parsed = asked.safeParse({
    property: query.get('property'),
    ...(query.has('seed') ? { seed: query.get('seed') } : {}),
    ground_C: query.get('ground_C'),
    fault: query.getAll('fault'),
    path: query.get('path'),
  })
  if (!parsed.success) return parsed.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join('; ')
  const held = await actingAs(database(), DEFAULT_ACTOR, async (within) => {
    const present = await presentSite(within, parsed.data.property)
    return present?.ok ? { site: present.value.site, facts: await readFacts(within, parsed.data.property) } : null
  })
  if (!held) return 'property: not on record'
  const { site, facts } = held
  const { seed } = parsed.data
  if (parsed.data.path !== null) {
    const at = pathsOf(site).find((p) => p.controller === parsed.data.path)
    const path = at && knownPath(at)
    if (!path?.ok || path.value.decoders.length === 0) return 'path: no path that can be reckoned'
    return pathMeterOn(pathFieldOf(site, path.value, drawPathFault(site, path.value, seed), seed))
  }
  const faults: FieldFault[] = []
  for (const written of parsed.data.fault) {
    const fault = readFault(site, written)
    if (!fault.ok) return `fault: ${written}`
    faults.push(fault.value)
  }
  const scene = sceneOf(site)
  const known = new Map(
    entries(site.controllers).flatMap(([c]) => [
      ...coilsAsRead(
        scene,
        goodReadings(
          scene,
          (ground_C, coil_C) => sceneOf(site, climateOf(site, ground_C, coil_C)),
          c,
          COMMON_METER,
          pastOf(facts),
        ),
        COMMON_METER,
      ),
    ]),
  )
  // Nobody knows where a sequencer stands: the seed draws it.
  const stands = chance(seed + 1)
  const sequencers = new Map(
    entries(site.devices).flatMap(([id, d]) =>
      d.kind === 'sequencer' ? [[id, Math.floor(stands() * d.outputs)] as const] : [],
    ),
  )
  const field = fieldOf(site, faults, {
    random: chance(seed),
    ground_C: parsed.data.ground_C ?? site.settings.ground_C,
    known,
    sequencers,
  })
  const meter = meterOn(field, COMMON_METER)
  // A wand and a controller hang on the same connection; their words begin with their names.
  const wand = wandOn(site, groundOf(site, chance(seed)))
  const controller = controllerOn(site, field)
  const called = (line: string) => (/^\s*WAND:/i.test(line) ? wand : /^\s*CTRL:/i.test(line) ? controller : meter)
  return { hear: (line) => called(line).hear(line) }
}
