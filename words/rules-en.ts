import type { BreachCode } from '../core/splice'
/** Broken rules of boxes and doors, sizes found, and mends. In the app they come with the pages after Threads and Test. */

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
}
