import type { Climate } from '../core/circuit'
import type { Judged, Term, Verdict } from '../core/expect'
import type { Meter } from '../core/record'
import type { Settings, Site } from '../core/site'
import { say, type Speaker } from './say'

/** A meter whose highest range is below this shows "over range" for many a sound but poor thread. */
const LOW_RANGE_ohm = 2000

/** One sentence on a single reading. */
export function sayVerdict(verdict: Verdict, meter: Meter, speaker: Speaker): string {
  const { code: _code, ...params } = verdict
  return say({ code: `verdictWhy.${detail(verdict, meter)}`, params: params as Record<string, number> }, speaker)
}

function detail(verdict: Verdict, meter: Meter): string {
  if (verdict.code === 'open')
    return verdict.onRecord ? 'open_on_record' : meter.highest_ohm < LOW_RANGE_ohm ? 'open_over' : 'open'
  return verdict.code === 'short' && verdict.atCoil ? 'short_at_coil' : verdict.code
}

/** One line of the sum: `Lead, red, 1 mm², 46 m`. Sizes arrive printed, since only the core knows how. */
export function sayTerm(term: Term, site: Site, climate: Climate, speaker: Speaker): string {
  switch (term.kind) {
    case 'aside':
    case 'known':
      return say({ code: `term.${term.kind}`, params: {} }, speaker)
    case 'joints':
      return say({ code: 'term.joints', params: { count: term.count } }, speaker)
    case 'coil': {
      const device = site.devices[term.device]!
      const kind = device.coilKind && site.coilKinds[device.coilKind]
      return withShare(
        say(
          {
            code: 'term.coil',
            params: { name: (kind && kind.name) || device.name || device.tag || term.device, at_C: climate.coil_C },
          },
          speaker,
        ),
        term.share,
        speaker,
      )
    }
    case 'wire': {
      const cable = site.cables[term.cable]!
      const core = cable.cores[term.core]!
      const gauge = (core.gauge ?? cable.gauge)?.value
      return withShare(
        say(
          {
            code: `term.wire_${term.side}`,
            params: {
              colour: core.colour ? `${core.colour.value}, ` : '',
              gauge: gauge ? speaker.gauge(gauge) : '?',
              length_m: term.length_m,
            },
          },
          speaker,
        ),
        term.share,
        speaker,
      )
    }
  }
}

function withShare(text: string, share: number, speaker: Speaker): string {
  return share > 0.999 ? text : `${text}, ${say({ code: 'term.shared', params: { share_ratio: share } }, speaker)}`
}

/** What the rule of thumb says of a reading, beside the verdict. */
export function sayRule(rule: Judged['rule'], settings: Settings, speaker: Speaker): string {
  const { low, high } = settings.ruleOfThumb_ohm
  return say(
    { code: `rule.${rule.passesFault ? 'passes_fault' : rule.passes ? 'passes' : 'fails'}`, params: { low, high } },
    speaker,
  )
}
