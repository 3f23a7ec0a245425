import type { FindingCode } from '../core/site'
import type { BreachCode } from '../core/splice'

/** Broken rules of boxes and doors, what the record says of itself, sizes found, mends. In the app they come with the pages after Threads and Test. */
export const rulesEn = {
  breach: {
    bare_in_box: '{at}: a bare twist, dead within months. Cut back to bright copper and use a sealed connector.',
    dry_in_box: '{at}: a dry nut in a box. Use a sealed connector.',
    holds_too_many:
      '{at}: a connector holds {is} conductors and takes {limit}. Chain several with jumpers, or use a larger kind.',
    holds_too_few: '{at}: a connector holds {is} conductor and needs {limit}. Cap the end, or join more.',
    holds_too_thick: '{at}: {is} mm² in a connector that takes {limit} mm². Use a nut with a gel tube, or a pigtail.',
    holds_too_thin: '{at}: {is} mm² in a connector that grips from {limit} mm². Use a smaller kind.',
    holds_too_full:
      '{at}: {is} mm² of copper in a connector that holds {limit} mm². Use a larger kind, or chain several.',
    connector_unknown: '{at}: a joint was made, but not its kind of connector noted.',
    spare_open:
      '{at}: {count} spare end of {cable} is open. Cap it: water creeps along the copper. | {at}: {count} spare ends of {cable} are open. Cap them: water creeps along the copper.',
    two_alike: '{cable} has two {colour} cores. Tell them apart at both ends, and mark them, before anything lands.',
    unlike_ends:
      'A core of {cable} is {colour}, but {other} at {at}. One of them is wrong, or there is a joint that nobody knows: prove it end to end.',
    filler: '{cable} has a {filler} beside its {cores} cores: it is no conductor.',
    filler_by_pale_core:
      '{cable} has a {filler} that looks like its pale core: joined by mistake it is a silent open. Count {cores} cores.',
    leads_unlike:
      '{valve} at {at} has leads of unlike colour ({a}, {b}): it may be a DC latching coil. Read its label or its ohms (a few, against 20–60).',
    common_crowded:
      '{controller}: {count} conductors under C, which takes {holds}. Join them to one tail, and land the tail.',
  } satisfies Record<BreachCode, string>,
  connector: {
    gel_crimp_3: 'gel crimp, 3 ports',
    nut_and_gel_tube: 'nut and gel tube',
    gel_nut: 'pre-filled gel nut',
    solder_heatshrink: 'solder and heat-shrink',
    dry_nut: 'dry twist nut',
    bare_twist: 'bare twist',
    terminal: 'terminal',
    cap: 'cap',
    unknown: 'connector not known',
  },
  /** What sizing comes to. */
  sizing: {
    cheapest: 'The cheapest wire that gives every coil its volts costs {cost}: proven, nothing cheaper holds.',
    near: 'Wire that gives every coil its volts costs {cost}. No choice can cost {gap} % less: that is proven.',
    sized: 'Wire that holds costs {cost}.',
    infeasible: 'Not even the thickest wire in stock will do: {thread} lacks {shortfall} at its worst.',
    beyond_table: '{thread} is {length_m} out; the table’s longest run is {longest_m}.',
    nothing_free: 'Every size is settled: seen or reported. Free them to have them chosen anew.',
    nothing_wired: 'No station has a complete way to its coil on record, so there is nothing to size.',
    no_time: 'No answer within the time given.',
  },
  /** A single change that mends an infeasible plan. */
  mend: {
    master_first: 'Let the controller bring the master valve in first, then the station.',
    together: 'Run at most {together} at a time.',
    transformer: 'A transformer of {rating_VA} VA.',
    thicker: 'Wire of {gauge}, thicker than what is stocked.',
    coil: 'Coils that draw no more than {inrush_A} A at inrush.',
    nearer: 'The controller {by_m} nearer to the valves.',
  },
  finding: {
    no_common: 'Controller {controller} has no common terminal on record.',
    lead_on_common: '{terminal} is joined to the common by the record: it would be a dead short.',
    nobody_meant: '{terminal} runs {valves} by the wiring, but no station is meant to use it.',
    dc_coil_on_ac: '{valve} has a DC latching coil on the AC output {terminal}. Change the coil.',
    swapped_pair: '{terminal} and {other} are swapped: each runs the valves meant for the other.',
    valve_elsewhere: '{valve} is meant for {terminal}, but the wiring brings it to {other}.',
    valve_not_wired: '{valve} is meant for {terminal}, but no complete way to it is on record.',
    extra_valve: '{terminal} also runs {valves} by the wiring, which it is not meant to.',
    no_valve_named: '{terminal} has a station, but no valve is named for it and none is wired.',
    known_open: 'On record as open: {at}.',
    known_grip: 'Known and left: a poor grip in a joint in {at}.',
    known_series: 'Known and left: a core with added ohms from {at} on.',
    known_touch: 'Known and left: cores that touch from {at} on.',
    known_leak: 'Known and left: a leak to earth in {at}.',
    known_bare: 'Known: a bare screw in {at}.',
    defect_moot: 'Something known and left lies on a part that is no longer on record; take it off the list.',
    known_suspect: 'On record as suspect: {at}.',
    box_lost: 'Box {at} is lost.',
    coil_unknown: 'The coil of {valve} is not on record; 20–60 Ω is taken.',
    length_unknown:
      'Cable {cable} has {count} stop without a distance. | Cable {cable} has {count} stops without a distance.',
    gauge_unknown: 'The conductor size of cable {cable} is not on record.',
    common_colour_on_lead: 'Cable {cable} uses {colour}, the common’s colour, for a station.',
    ends_unjoined:
      'At {at}, {count} core end of cable {cable} has no joint or cap on record. | At {at}, {count} core ends of cable {cable} have no joint or cap on record.',
  } satisfies Record<FindingCode, string>,
}
