import * as z from 'zod'
import { climateOf } from '../../core/circuit'
import { sceneOf } from '../../core/expect'
import { coilsAsRead, goodReadings, pastOf } from '../../core/history'
import { COMMON_METER } from '../../core/record'
import { entries } from '../../core/site'
import { chance, fieldOf, meterOn, readFault, type FieldFault, type MeterSession } from '../../standins'
import { actingAs, DEFAULT_ACTOR } from '../db/actor'
import { readFacts } from '../db/facts'
import { presentSite } from '../db/sites'
import { database } from '../utils/database'

const asked = z.strictObject({
  property: z.uuid(),
  seed: z.coerce.number().int().min(0).max(4294967295).default(1),
  fault: z.array(z.string().max(200)).max(8).default([]),
})
const sessions = new Map<string, Promise<MeterSession | null>>()
/** Longest line that is listened to: a test in JSON, quoted. */
const LONGEST = 4000

/** A simulated meter on a property with hidden faults, for practice: plain SCPI over a WebSocket. Pages of other sites are refused. */
export default defineWebSocketHandler({
  upgrade(request) {
    const [host, origin] = [request.headers.get('host') ?? '', request.headers.get('origin')]
    if (!/^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/i.test(host) || (origin !== null && origin !== `http://${host}`))
      throw new Response('This meter answers pages of this server only.', { status: 403 })
  },
  open(peer) {
    const session = sessionFor(new URL(peer.request?.url ?? '/', 'http://localhost').searchParams)
    sessions.set(
      peer.id,
      session.then((made) => {
        if (typeof made !== 'string') return made
        peer.close(1008, made.slice(0, 120))
        return null
      }),
    )
  },
  async message(peer, message) {
    const text = message.text()
    const session = text.length > LONGEST ? null : await sessions.get(peer.id)
    const answer = session?.hear(text) ?? null
    if (answer !== null) peer.send(answer)
  },
  close(peer) {
    sessions.delete(peer.id)
  },
})

/** A meter for what was asked for, or why there is none. */
async function sessionFor(query: URLSearchParams): Promise<MeterSession | string> {
  const parsed = asked.safeParse({
    property: query.get('property'),
    ...(query.has('seed') ? { seed: query.get('seed') } : {}),
    fault: query.getAll('fault'),
  })
  if (!parsed.success) return parsed.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join('; ')
  const held = await actingAs(database(), DEFAULT_ACTOR, async (within) => {
    const present = await presentSite(within, parsed.data.property)
    return present?.ok ? { site: present.value.site, facts: await readFacts(within, parsed.data.property) } : null
  })
  if (!held) return 'property: not on record'
  const { site, facts } = held
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
  return meterOn(
    fieldOf(site, faults, { random: chance(parsed.data.seed), ground_C: site.settings.ground_C, known }),
    COMMON_METER,
  )
}
