import type * as z from 'zod'
import type { Property } from '../core/formats'
import { accepted, type Outcome } from '../core/refusal'
import {
  instantOf,
  JUDGED_days,
  programsOf,
  programTurns,
  review,
  wallClock,
  type CalendarDate,
} from '../core/schedule'
import {
  countOf,
  eventsIn,
  neverCame,
  nextOf,
  resyncOf,
  sequencersOf,
  turnsIn,
  type Sequenced,
  type SequencerEvent,
} from '../core/sequencer'
import { deviceName, getOrThrow, type ControllerId, type DeviceId, type TerminalId } from '../core/site'
import type { Speaker } from '../words'
import type { Arguments } from './flags'
import type { sequencerOutput } from './output'
import { chosenControllers } from './verbs'

type Out = z.infer<typeof sequencerOutput>
/** Where no date is asked for, what the programs do wrong is told of dates from here on. */
const SOME_DATE: CalendarDate = '2027-01-01'

/**
 * The sequencers of a property: which valve comes next by what was read, and by the programs where a date says until
 * when they ran; how each is brought into step; and what its schedule does wrong.
 */
export function sequencersIn(property: Property, flags: Arguments['flags'], { t }: Speaker): Outcome<Out> {
  const { site, facts } = property
  const chosen = chosenControllers(site, flags.controller)
  if (!chosen.ok) return chosen
  const name = (id: DeviceId) => deviceName(site, id)
  const sequencers = chosen.value.flatMap((controller) => {
    const screw = (id: TerminalId) => getOrThrow(getOrThrow(site.controllers, controller).terminals, id).tag
    const judged = review(site, controller, programsOf(site, controller), {
      from: flags.from ?? SOME_DATE,
      days: JUDGED_days,
    })
    return sequencersOf(site, controller).map((sequenced) => {
      const events = eventsIn(facts, controller, sequenced)
      const byPrograms =
        flags.from === undefined ? [] : programTurnsUntil(property, controller, sequenced, events, flags.from)
      const belief = countOf(sequenced, [...events, ...byPrograms])
      const resync = resyncOf(sequenced, belief)
      return {
        sequencer: name(sequenced.device),
        controller: getOrThrow(site.controllers, controller).tag,
        terminals: sequenced.fedBy.map(screw),
        outputs: sequenced.outputs.map((coils) => coils.map(name)),
        off_ms: sequenced.off_ms,
        turns: turnsIn([...events, ...byPrograms]),
        never: neverCame(sequenced, events).map(name),
        lost: belief.lost,
        next: nextOf(sequenced, belief).map(({ of, probability }) => ({
          valve: of && name(of),
          likelihood: rounded(probability),
        })),
        resync: resync && {
          terminal: screw(resync.terminal),
          until: name(resync.until),
          pulses: resync.pulses.map(({ of, probability }) => ({ times: of, likelihood: rounded(probability) })),
        },
        checks: judged.ok
          ? judged.value.findings
              .filter((f) => f.about.sequencer === sequenced.device)
              .map(({ code, params }) => ({ code, says: t(`schedule.${code}`, params) }))
          : [],
      }
    })
  })
  return accepted({ verb: 'sequencer', property: site.about.name, sequencers })
}

const rounded = (probability: number) => Math.round(probability * 1e4) / 1e4

/** Turns that the programs have given since the sequencer was last heard of, up to the beginning of a date. */
function programTurnsUntil(
  { site }: Property,
  controller: ControllerId,
  sequenced: Sequenced,
  events: readonly SequencerEvent[],
  until: CalendarDate,
): SequencerEvent[] {
  const clock = wallClock(site.settings.timeZone)
  const last_s = Math.max(...events.map((e) => e.at_s))
  return clock.ok ? programTurns(site, controller, sequenced, last_s, instantOf(clock.value, until, 0)) : []
}

/** The same as lines for a person. */
export const sequencerLines = ({ sequencers }: Out): string[] =>
  sequencers.length === 0
    ? ['No sequencer is on record.']
    : sequencers.flatMap((q) => [
        `${q.controller} ${q.terminals.join('+')} → ${q.sequencer}: ` +
          q.outputs.map((o) => o.join('+') || '–').join(', '),
        `  next: ${q.next.map((n) => `${n.valve ?? '–'} ${Math.round(n.likelihood * 100)} %`).join(', ')}`,
        ...q.never.map((valve) => `  never came: ${valve}`),
        ...(q.resync
          ? [
              `  into step: ${q.resync.terminal} on and off until ${q.resync.until} waters, ` +
                q.resync.pulses.map((p) => `${p.times} times ${Math.round(p.likelihood * 100)} %`).join(', '),
            ]
          : []),
        ...q.checks.map((c) => `  ${c.says}`),
      ])
