import { commandsBetween } from '../plan'
import { area_mm2 } from '../quantity'
import type { Part } from '../record'
import { copperCents_per_m, stockOf } from '../sizing'
import { entries, lookUp, type ControllerId, type Site, type StationId } from '../site'
import { asFound } from './damage'
import { USUAL_FIGURES, wireCode, type RepairFigures } from './figures'
import { harmOf, whyNot } from './judge'
import { newWires, spareCores, tracedBreak } from './options/conductor'
import { bypassedMaster, newCoil, newModule, newTransformer, remadeJoint, swappedBack } from './options/parts'
import { freeScrews, sequencers, twoOnLeads } from './options/shared-lead'
import { convertedCable } from './options/two-wire'
import type { Possible, RepairAsk, RepairCode, RepairOption, RiskCode, Tried, WhyNot, WorkKind } from './repair'

const SHARED = ['two_on_lead', 'sequencer'] as const
const CONDUCTOR = ['spare_core', 'new_wire', 'trace_and_mend', ...SHARED, 'two_wire'] as const
/** What can be done about each kind of part; of several that cost alike the earlier comes first. */
const FOR: Readonly<Record<Part['kind'], readonly RepairCode[]>> = {
  joint: ['remake_joint', ...SHARED],
  run: CONDUCTOR,
  touch: CONDUCTOR,
  thread: CONDUCTOR,
  coil: ['coil', 'whole_valve'],
  valve: ['coil', 'whole_valve'],
  terminal: ['other_terminal', 'module', ...SHARED],
  supply: ['transformer'],
  pair: ['swap_back'],
  sensor: [],
  water: [],
}
const MAKE: Readonly<Record<RepairCode, (ask: RepairAsk) => Tried[] | WhyNot>> = {
  remake_joint: remadeJoint,
  spare_core: spareCores,
  new_wire: newWires,
  trace_and_mend: tracedBreak,
  other_terminal: freeScrews,
  module: newModule,
  transformer: newTransformer,
  two_on_lead: twoOnLeads,
  sequencer: sequencers,
  two_wire: convertedCable,
  coil: (ask) => newCoil(ask, 'coil'),
  whole_valve: (ask) => newCoil(ask, 'valve'),
  swap_back: swappedBack,
  bypass_master: bypassedMaster,
}
const RISK: Readonly<Record<RepairCode, RiskCode>> = {
  remake_joint: 'same_copper',
  spare_core: 'same_jacket',
  new_wire: 'digging',
  trace_and_mend: 'buried_joint',
  other_terminal: 'none',
  module: 'none',
  transformer: 'none',
  two_on_lead: 'run_together',
  sequencer: 'keeps_count',
  two_wire: 'whole_cable',
  coil: 'old_valve',
  whole_valve: 'water_on',
  swap_back: 'none',
  bypass_master: 'no_shut_off',
}

/**
 * All that can be done about a part that was found bad, side by side: what is possible first, the cheapest of it at the
 * top; then what is not, each with its reason. Possible is what the circuit engine and the rules of boxes find good on
 * the property with the repair; of several ways to do one thing the cheapest good one stands for it.
 * @param site the record without what is wrong
 * @param known the record where it has the part as bad already: what is written then begins there
 */
export function repairsFor(
  site: Site,
  controller: ControllerId,
  where: Part,
  today: string,
  figures: RepairFigures = USUAL_FIGURES,
  known: Site | null = null,
): RepairOption[] {
  const found = asFound(site, where)
  const damage = known ? { ...found, site: known } : found
  const { stopped, working } = harmOf(site, controller, damage)
  const ask: RepairAsk = { site, where, damage, controller, stopped, today }
  const codes = [...FOR[where.kind], ...(stopsByMaster(site, stopped) ? (['bypass_master'] as const) : [])]
  const options = codes.map((code): RepairOption => {
    const tried = MAKE[code](ask)
    if ('code' in tried) return { code, possible: false, why: tried, inVain: [] }
    const judged = tried.map((one) => ({ tried: one, why: whyNot(ask, one, working) }))
    const good = judged.flatMap(({ tried: one, why }) =>
      why === null ? [possible(ask, code, one, figures, known ?? site)] : [],
    )
    const [best] = good.sort((a, b) => a.cents - b.cents)
    if (best) return best
    const inVain = judged as { tried: Tried; why: WhyNot }[]
    return { code, possible: false, why: inVain[0]!.why, inVain }
  })
  const rank = (o: RepairOption) => (!o.possible ? Infinity : o.isTemporary ? 1e12 + o.cents : o.cents)
  return options
    .map((option, i) => ({ option, i }))
    .sort((a, b) => (rank(a.option) === rank(b.option) ? a.i - b.i : rank(a.option) - rank(b.option)))
    .map(({ option }) => option)
}

/** Whether all stations stop that a master valve comes in with: it may be the master that does not. */
function stopsByMaster(site: Site, stopped: readonly StationId[]): boolean {
  const withMaster = entries(site.stations).filter(([, { pointOfConnection, withMaster: isOn, valves }]) => {
    const point = pointOfConnection && isOn ? lookUp(site.pointsOfConnection, pointOfConnection) : null
    return point?.masterValve && valves.length > 0
  })
  return stopped.length > 0 && withMaster.length > 1 && withMaster.every(([id]) => stopped.includes(id))
}

function possible(ask: RepairAsk, code: RepairCode, tried: Tried, figures: RepairFigures, record: Site): Possible {
  const minutes = minutesOf(tried, figures)
  const material_cents = materialOf(ask.site, tried, figures)
  return {
    code,
    possible: true,
    commands: commandsBetween(record, tried.after.site),
    tried,
    minutes,
    material_cents,
    cents: Math.round(minutes * figures.cents_per_min + material_cents),
    dig_m: Math.round((tried.work.trench_m ?? 0) * 10) / 10,
    risk: RISK[code],
    isTemporary: code === 'bypass_master',
  }
}

/** Minutes of the work that a repair takes, its retest with it. */
function minutesOf({ work }: Tried, f: RepairFigures): number {
  const each: Readonly<Record<WorkKind, number>> = {
    place: f.place_min,
    joint: f.joint_min,
    screw: f.screw_min,
    prove: f.prove_min,
    trace: f.trace_min,
    hole: f.hole_min,
    trench_m: f.trench_min_per_m,
    coil: f.coil_min,
    valve: f.valve_min,
    module: f.module_min,
    transformer: f.transformer_min,
    decoder: f.decoder_min,
    bypass: f.bypass_min,
  }
  const sum = (Object.keys(each) as WorkKind[]).reduce((total, kind) => total + (work[kind] ?? 0) * each[kind], 0)
  return Math.round((sum + f.retest_min) * 10) / 10
}

/** Its material by the figures; wire they do not name at the property’s own price, else as copper. */
function materialOf(site: Site, { parts, wire }: Tried, f: RepairFigures): number {
  const pieces = Object.entries(parts).reduce(
    (sum, [part, count]) => sum + (count ?? 0) * f.parts_cents[part as keyof typeof parts],
    0,
  )
  const own = wire && stockOf(site).find((s) => area_mm2(s.gauge) === area_mm2(wire.gauge))
  const cents_per_m = wire
    ? (f.wire_cents_per_m[wireCode(wire.gauge)] ?? own?.cents_per_m ?? copperCents_per_m(wire.gauge))
    : 0
  return Math.round(pieces + (wire?.length_m ?? 0) * cents_per_m)
}
