import loadHighs from 'highs'
import type * as z from 'zod'
import { readStationList, writeMaterialCsv, writeProperty, writeStationList, type Property } from '../core/formats'
import { listCommands, runsOf } from '../core/plan'
import { gaugeText } from '../core/quantity'
import { accepted, refused, type Outcome } from '../core/refusal'
import { choiceSolver, marginsOf, size, type SizingAnswer, type ThreadMargin } from '../core/sizing'
import { applyBatch, byTag, entries, getOrThrow, type Site } from '../core/site'
import { boxJoints, censusCounts, censusOf, isMade, planRun } from '../core/splice'
import { cableLengths, connectorCounts, spoolPlans } from '../core/takeoff'
import type { Speaker } from '../words'
import { sayMend, sayWeakest } from '../words/sizing'
import type { Arguments } from './flags'
import type { materialOutput, sizeOutput, stationsOutput, wiringOutput } from './output'

type Flags = Arguments['flags']

/** The cheapest sizes for what may still be chosen, and every thread's margin at its worst as recorded. */
export async function sizes(
  { site }: Property,
  flags: Flags,
  speaker: Speaker,
): Promise<Outcome<z.infer<typeof sizeOutput>>> {
  const answer = size(site, choiceSolver(await loadHighs()), { anew: flags.anew })
  const { threads, unwired } = marginsOf(site)
  const { sizing } = site.settings
  return accepted({
    verb: 'size',
    property: site.about.name,
    school: sizing.school,
    hottest_C: sizing.hottest_C,
    mains_ratio: 1 - sizing.mainsLow_ratio,
    together: sizing.together,
    margins: threads.map((t) => marginOut(site, t)),
    unwired: unwired.map((s) => getOrThrow(site.stations, s).name),
    ...answerOut(site, answer, speaker),
  })
}

const marginOut = (site: Site, t: ThreadMargin) => ({
  station: t.station === null ? null : getOrThrow(site.stations, t.station).name,
  device: getOrThrow(site.devices, t.device).tag ?? t.device,
  part: t.part,
  starter: getOrThrow(site.stations, t.starter).name,
  terminal_V: t.terminal_V,
  needed_V: t.needed_V,
  volt_V: t.volt_V,
  margin_V: t.margin_V,
  optimistic_V: t.optimistic_V,
  model_V: t.model_V,
  stretches: t.stretches.map((s) => ({
    side: s.side,
    cable: getOrThrow(site.cables, s.cable).tag ?? s.cable,
    core: s.core,
    from: getOrThrow(site.places, s.from).tag,
    to: getOrThrow(site.places, s.to).tag,
    size: s.gauge && gaugeText(s.gauge),
    length_m: s.length_m,
    current_A: s.current_A,
    drop_V: s.drop_V,
  })),
})

function answerOut(site: Site, answer: SizingAnswer, speaker: Speaker) {
  switch (answer.kind) {
    case 'sized':
      return {
        answer: answer.kind,
        says: sayWeakest(answer, site, speaker),
        cost_cents: answer.cost_cents,
        bound_cents: answer.bound_cents,
        uniform: answer.uniform && {
          size: gaugeText(answer.uniform.stocked.gauge),
          cost_cents: answer.uniform.cost_cents,
        },
        sizes: answer.groups.map((g, i) => {
          const cable = getOrThrow(site.cables, g.cable)
          return {
            cable: cable.tag ?? g.cable,
            from: getOrThrow(site.places, cable.stops[g.from]!.place).tag,
            to: getOrThrow(site.places, cable.stops[g.to]!.place).tag,
            length_m: g.length_m,
            size: gaugeText(answer.stock[answer.chosen[i]!]!.gauge),
          }
        }),
      }
    case 'infeasible':
      return {
        answer: answer.kind,
        says: sayWeakest(answer, site, speaker),
        shortfall_V: answer.shortfall_V,
        failing: answer.failing,
        mends: answer.mends.map((m) => ({ ...m, says: sayMend(m, speaker) })),
      }
    default:
      return { answer: answer.kind, says: sayWeakest(answer, site, speaker) }
  }
}

/** Cable lengths, spools and connectors; as lines, the CSV of all sheets. */
export function material({ site }: Property): Outcome<z.infer<typeof materialOutput>> {
  const tag = (id: string) => getOrThrow(site.cables, id).tag ?? id
  return accepted({
    verb: 'material',
    property: site.about.name,
    csv: writeMaterialCsv(site),
    cables: cableLengths(site).map((c) => ({
      cable: tag(c.cable),
      cores: c.ware.cores,
      size: c.ware.gauge && gaugeText(c.ware.gauge),
      route_m: c.route_m,
      expansion_m: c.expansion_m,
      slack_m: c.slack_m,
      order_m: c.order_m,
      unknown: c.unknown,
    })),
    spools: spoolPlans(site).map((p) => ({
      cores: p.ware.cores,
      size: p.ware.gauge && gaugeText(p.ware.gauge),
      colour: p.ware.colour,
      joints: p.joints,
      needed_m: p.needed_m,
      bought_m: p.bought_m,
      bound_m: p.bound_m,
      tooLong: p.tooLong.map((t) => tag(t.cable)),
      spools: p.spools.map((s) => ({
        length_m: s.length_m,
        left_m: s.left_m,
        pulls: s.pulls.map((pull) => ({
          cable: tag(pull.cable),
          from: getOrThrow(site.places, pull.from).tag,
          to: getOrThrow(site.places, pull.to).tag,
          length_m: pull.length_m,
        })),
      })),
    })),
    connectors: connectorCounts(site).map((c) => ({
      connector: c.connector,
      conductors: c.conductors,
      count: c.count,
      withReserve: c.withReserve,
    })),
  })
}

/** The list of stations; with a list given, the property file with that list taken in. */
export function stations(property: Property, csv: string | null): Outcome<z.infer<typeof stationsOutput>> {
  if (csv === null) return accepted({ verb: 'stations', text: writeStationList(property.site) })
  const rows = readStationList(csv, property.site.settings)
  const commands = rows.ok ? listCommands(property.site, rows.value) : rows
  const applied = commands.ok ? applyBatch(property.site, commands.value) : commands
  return applied.ok
    ? accepted({ verb: 'stations', text: writeProperty({ ...property, site: applied.value.site }) })
    : refused(...applied.refusals)
}

/**
 * What every run needs and every core serves, and the joints of every box with the ways in which they could be made.
 */
export function wiring({ site }: Property): z.infer<typeof wiringOutput> {
  const tag = (place: string) => getOrThrow(site.places, place).tag
  return {
    verb: 'wiring',
    property: site.about.name,
    runs: entries(site.controllers)
      .flatMap(([c]) => runsOf(site, c))
      .map((run) => planRun(site, run))
      .map(({ run, laid, needs, has, jacket, advised, cores }) => ({
        cable: getOrThrow(site.cables, run.cable).tag ?? run.cable,
        laid,
        needs,
        has,
        jacket,
        advised: advised.kind,
        because: advised.because,
        cores: cores.map((c) => ({
          colour: c.colour,
          planned: c.planned,
          use: c.use,
          terminal: c.terminal,
          cutAt: c.cutAt.map(tag),
          through: c.through.map(tag),
        })),
      })),
    boxes: entries(site.places)
      .sort(([, a], [, b]) => byTag(a.tag, b.tag))
      .map(([id, place]) => ({
        box: place.tag,
        cores: censusCounts(censusOf(site, id)),
        joints: boxJoints(site, id).map((j) => ({
          serves: j.serves,
          terminal: j.terminal,
          conductors: j.ends.length,
          made: j.holds.every((h) => isMade(h.record)),
          connectors: j.holds.map((h) => h.record.connector),
          ways: j.ways.map((w) => ({ connectors: w.plan.made.map((m) => m.connector.kind), jumpers: w.plan.jumpers })),
        })),
      })),
  }
}

/** The same as lines for a person: what every coil gets of what it needs, then what is to be bought. */
export const sizeLines = (o: z.infer<typeof sizeOutput>): string[] => [
  ...o.margins.map((m) => {
    const has = `${m.volt_V.toFixed(2).padStart(6)} V of ${m.needed_V.toFixed(2)} needed`
    const over = `${m.margin_V < 0 ? 'lacks' : 'spare'} ${Math.abs(m.margin_V).toFixed(2)}`
    return `${m.device.padEnd(8)} ${has}, ${over}  ${m.station ?? ''}`.trimEnd()
  }),
  '',
  o.says,
  ...(o.mends ?? []).map((m) => `- ${m.says}`),
  ...(o.sizes ?? []).map((s) => `${s.cable.padEnd(8)} ${s.from} to ${s.to}`.padEnd(28) + s.size),
]

/** The same as lines for a person: runs with their cores, then boxes with their joints. */
export const wiringLines = ({ runs, boxes }: z.infer<typeof wiringOutput>): string[] => [
  ...runs.flatMap((r) => [
    `${r.cable}: ${r.needs.cores} cores needed, has ${r.has}`,
    ...r.cores.map((c) => {
      const cut = c.cutAt.length > 0 ? `cut at ${c.cutAt.join(' ')}` : ''
      return `  ${(c.colour ?? c.planned).padEnd(14)} ${(c.terminal ?? c.use).padEnd(8)} ${cut}`.trimEnd()
    }),
  ]),
  ...boxes
    .filter((b) => b.joints.length > 0)
    .flatMap((b) => [
      '',
      b.box,
      ...b.joints.map((j) => {
        const made = `${j.conductors} in ${j.connectors.join(' + ')}`
        return `  ${(j.terminal ?? j.serves).padEnd(8)} ${made}${j.made ? '' : '  (to make)'}`
      }),
    ]),
]
