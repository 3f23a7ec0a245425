import { REPAIR_CODES } from '../core/repair'
import * as z from 'zod'
import { DEEDS, FAMILIES, HAZARDS, KIT, SORTING_METHODS, WIRING_STATES } from '../core/record'
import { FIND_KINDS } from '../core/trace'

const statement = z.string().describe('One sentence in English')
const terminal = z.string().describe('Controller and terminal by their tags, as A:3')
const ohm = z.number()
const span = z.strictObject({ below: ohm, above: ohm })

const expectation = {
  kind: z
    .enum(['ohms', 'bounds', 'open', 'not_readable', 'insulation'])
    .describe(
      'insulation: to earth; ohms: a full prediction; bounds: the record is incomplete; open: by the record nothing is joined; not_readable: behind a sequencer or decoder',
    ),
  expected_ohm: ohm.optional(),
  low_ohm: ohm.optional().describe('Lower edge of the record band'),
  high_ohm: ohm.optional().describe('Upper edge of the record band'),
  terms: z
    .array(
      z.strictObject({
        says: statement,
        kind: z.enum(['wire', 'joints', 'coil', 'known', 'aside']),
        ohm,
        length_m: z.number().optional(),
        share: z.number().optional().describe('Part of the meter’s current that passes here, 1 for all'),
      }),
    )
    .optional()
    .describe('Parts of the sum; they add up to expected_ohm'),
  deviations: z
    .strictObject({ coil: span, wire: span, joints: span, meter: span, unknown: span })
    .optional()
    .describe('Ohms that each source may take off the sum'),
}

export const checkOutput = z.strictObject({
  verb: z.literal('check'),
  property: z.string(),
  findings: z.array(
    z.strictObject({
      weight: z.enum(['wrong', 'doubt', 'gap']),
      code: z.string(),
      path: z.string(),
      says: statement,
    }),
  ),
})

export const expectOutput = z.strictObject({
  verb: z.literal('expect'),
  property: z.string(),
  ground_C: z.number(),
  coil_C: z.number(),
  terminals: z.array(z.strictObject({ terminal, to: terminal, station: z.string().nullable(), ...expectation })),
})

export const judgeOutput = z.strictObject({
  verb: z.literal('judge'),
  property: z.string(),
  ground_C: z.number(),
  coil_C: z.number(),
  readings: z.array(
    z.strictObject({
      line: z.int(),
      terminal,
      to: terminal,
      station: z.string().nullable(),
      reading_ohm: ohm.nullable().describe('As read; null for open'),
      verdict: z.enum([
        'fits',
        'fits_bounds',
        'low',
        'high',
        'open',
        'short',
        'two_coils',
        'drifted',
        'as_before',
        'earth_new',
        'earth_fine',
        'earth_known',
        'earth_watch',
        'earth_leak',
        'earth_fault',
        'earth_over',
        'unexpected',
        'not_readable',
        'not_measured',
      ]),
      state: z.enum(['fits', 'doubtful', 'fault', 'none']),
      says: statement,
      distance_m: z.number().optional().describe('Of a short, at the most'),
      baseline: z
        .strictObject({ corrected_ohm: ohm, low_ohm: ohm, high_ohm: ohm, reading: z.string(), at: z.string() })
        .nullable()
        .describe('What this thread read before, at the temperature of now, by the file’s own readings'),
      ruleOfThumb: z.strictObject({ passes: z.boolean(), passesFault: z.boolean() }),
      ...expectation,
    }),
  ),
  checks: z
    .array(
      z.strictObject({
        line: z.int(),
        terminal: z.string(),
        test: z.enum(['supply', 'volts', 'click', 'tester_coil', 'tester_power']),
        state: z.enum(['fits', 'doubtful', 'fault', 'none']),
        says: statement,
      }),
    )
    .describe('Volts, clicks and lamps, judged by themselves'),
  conclusions: z.array(
    z.strictObject({
      controller: z.string(),
      kind: z.string(),
      doubtful: z
        .boolean()
        .describe('Only what was read before speaks for it; the record alone would pass the readings'),
      says: statement,
      next: statement,
      or: z
        .array(z.strictObject({ kind: z.string(), says: statement }))
        .describe('Explanations of another kind that fit as well'),
      terminals: z.array(terminal).describe('Whose readings it explains'),
      between: z.array(z.string()).describe('Tags of the nearest and the farthest place, or none'),
      suspects: z
        .array(
          z.strictObject({
            kind: z.enum(['stretch', 'joint', 'coil']),
            places: z.array(z.string()),
            id: z.string(),
          }),
        )
        .describe('Every place that explains the readings equally well'),
    }),
  ),
  severalOrWrong: z.boolean().describe('The open readings fit no single break'),
})

const volt = z.number()
const amps = z.number()
export const solveOutput = z.strictObject({
  verb: z.literal('solve'),
  property: z.string(),
  hz: z.union([z.literal(0), z.literal(50), z.literal(60)]),
  phase: z.enum(['safe', 'optimistic']),
  ground_C: z.number(),
  coil_C: z.number(),
  mains_ratio: z.number(),
  on: z.array(terminal).describe('Every terminal that is live, the master’s too'),
  coils: z
    .array(
      z.strictObject({
        device: z.string(),
        face: z.enum(['inrush', 'holding']),
        volt_V: volt,
        current_A: amps,
        minimum_V: volt.describe('What its face asks for'),
        enough: z.boolean().describe('Whether it pulls in (inrush) or holds (holding)'),
        safe_V: volt.describe('The same with the whole impedance real, in phase with the wire: the least it can have'),
        safe_enough: z.boolean(),
      }),
    )
    .describe('Coils with volts across them, run on purpose or not'),
  conductors: z.array(
    z.strictObject({
      cable: z.string(),
      core: z.string(),
      from: z.string().describe('Node'),
      to: z.string().describe('Node'),
      ohm,
      current_A: amps,
      volt_V: volt,
    }),
  ),
  joints: z.array(
    z.strictObject({
      splice: z.string(),
      place: z.string(),
      volt_V: volt.describe('The most between any two of its ends'),
      current_A: amps,
    }),
  ),
  supplies: z.array(
    z.strictObject({
      controller: z.string(),
      terminal_V: volt,
      current_A: amps,
      load_VA: z.number(),
      rating_VA: z.number().nullable(),
    }),
  ),
  nodes: z
    .array(
      z.strictObject({
        name: z.string().describe('As in the deck; 0 is the common of the first live controller'),
        floating: z.boolean().describe('No way to any source; left out of the deck'),
        re_V: volt.nullable(),
        im_V: volt.nullable(),
        volt_V: volt.nullable(),
      }),
    )
    .describe('Volts against the node’s own common, RMS phasors'),
})

export const deckOutput = z.strictObject({ verb: z.literal('deck'), deck: z.string().describe('A SPICE deck') })

const stretchOut = z.strictObject({
  side: z.enum(['lead', 'common']),
  cable: z.string(),
  core: z.string(),
  from: z.string(),
  to: z.string(),
  size: z.string().nullable(),
  length_m: z.number(),
  current_A: amps,
  drop_V: volt,
})
export const sizeOutput = z.strictObject({
  verb: z.literal('size'),
  property: z.string(),
  school: z.enum(['coil_minimum', 'allowed_drop', 'reach_table']),
  hottest_C: z.number(),
  mains_ratio: z.number(),
  together: z.int(),
  margins: z
    .array(
      z.strictObject({
        station: z.string().nullable(),
        device: z.string(),
        part: z.enum(['starting', 'master', 'holding']),
        starter: z.string().describe('The station that starts at the worst moment'),
        terminal_V: volt,
        needed_V: volt,
        volt_V: volt.describe('By the circuit engine, safe phase'),
        margin_V: volt,
        optimistic_V: volt,
        model_V: volt.describe('Coils as constant currents, drops added'),
        stretches: z.array(stretchOut),
      }),
    )
    .describe('Every thread as recorded, at its worst moment, the weakest first'),
  unwired: z.array(z.string()),
  answer: z.enum(['sized', 'infeasible', 'beyond_table', 'nothing_free', 'nothing_wired', 'no_time']),
  says: statement,
  cost_cents: z.int().optional(),
  bound_cents: z
    .int()
    .nullable()
    .optional()
    .describe('No choice that holds costs less; equal to the cost where it is the optimum'),
  uniform: z
    .strictObject({ size: z.string(), cost_cents: z.int() })
    .nullable()
    .optional()
    .describe('The best single size'),
  sizes: z
    .array(
      z.strictObject({
        cable: z.string(),
        from: z.string(),
        to: z.string(),
        length_m: z.number().describe('Of conductor, all cores'),
        size: z.string(),
      }),
    )
    .optional(),
  shortfall_V: volt.optional(),
  failing: z.int().optional(),
  mends: z
    .array(z.looseObject({ code: z.string(), says: statement }))
    .optional()
    .describe('Single changes that each mend an infeasible plan, the smallest first'),
})

export const materialOutput = z.strictObject({
  verb: z.literal('material'),
  property: z.string(),
  csv: z.string(),
  cables: z.array(
    z.strictObject({
      cable: z.string(),
      cores: z.int(),
      size: z.string().nullable(),
      route_m: z.number(),
      expansion_m: z.number(),
      slack_m: z.number(),
      order_m: z.number(),
      unknown: z.boolean(),
    }),
  ),
  spools: z.array(
    z.strictObject({
      cores: z.int(),
      size: z.string().nullable(),
      colour: z.string().nullable(),
      joints: z.int().describe('Of cores, that only the spools’ length makes necessary'),
      needed_m: z.number(),
      bought_m: z.number(),
      bound_m: z.number().describe('No plan with as few joints buys less'),
      tooLong: z.array(z.string()),
      spools: z.array(
        z.strictObject({
          length_m: z.number(),
          left_m: z.number(),
          pulls: z.array(z.strictObject({ cable: z.string(), from: z.string(), to: z.string(), length_m: z.number() })),
        }),
      ),
    }),
  ),
  connectors: z.array(
    z.strictObject({ connector: z.string(), conductors: z.int(), count: z.int(), withReserve: z.int() }),
  ),
})

export const stationsOutput = z.strictObject({
  verb: z.literal('stations'),
  text: z.string().describe('CSV, or the property file with the list taken in'),
})

export const simulateOutput = z.strictObject({
  verb: z.literal('simulate'),
  seed: z.number(),
  faults: z.array(z.string()),
  readings: z.int(),
  csv: z.string().describe('Columns as `judge` takes them'),
})

const believed = z.number().describe('0 … 1')
export const huntOutput = z.strictObject({
  verb: z.literal('hunt'),
  property: z.string(),
  controller: z.string(),
  end: z.enum(['named', 'nothing', 'undecided', 'open']).describe('open: something is still worth measuring'),
  says: statement,
  strained: z.boolean().describe('No explanation fits every reading: the record may be wrong'),
  nothing: believed.describe('That nothing is wrong in the wiring and no reading slipped'),
  misread: believed.describe('That nothing is wrong in the wiring and a reading slipped'),
  parts: z
    .array(
      z.strictObject({
        key: z.string(),
        kind: z.enum([
          'joint',
          'run',
          'touch',
          'coil',
          'valve',
          'pair',
          'terminal',
          'thread',
          'supply',
          'sensor',
          'water',
        ]),
        places: z.array(z.string()).describe('Tags; of a run both its ends'),
        p: believed,
        says: statement,
        causes: z
          .array(z.strictObject({ cause: z.string(), p: believed }))
          .describe('What may be wrong with it, of the belief in the part'),
      }),
    )
    .describe('Parts by how likely they are at fault, above 0.1 %'),
  troubles: z
    .array(
      z.strictObject({
        p: believed.describe('That any of its parts is at fault'),
        says: statement,
        parts: z.array(z.strictObject({ key: z.string(), p: believed })),
        named: z.boolean().describe('Its first part is known well enough to be mended'),
        zones: z.int().describe('How many zones its first part has to do with'),
        next: z
          .strictObject({ test: z.string(), place: z.string(), minutes: z.number(), says: statement })
          .nullable()
          .describe('The test that tells most about it'),
      }),
    )
    .describe('What is wrong, thing by thing, as readings show it: parts of one shut each other out'),
  round: z
    .array(
      z.strictObject({
        place: z.string(),
        minutes: z.number(),
        troubles: z.array(z.int()).describe('Which of the troubles are gone after here, from 0'),
      }),
    )
    .describe('What is next for all that is rather wrong than not, in one walk, the nearest place first'),
  telling: z
    .strictObject({ line: z.int().nullable(), says: statement })
    .nullable()
    .describe('The reading without which the odds of the likeliest part would fall most'),
  again: z
    .strictObject({ line: z.int().nullable(), says: statement })
    .nullable()
    .describe('A reading that no likely explanation fits: it may have slipped, and is to be taken again first'),
  next: z
    .strictObject({
      test: z.string(),
      place: z.string(),
      minutes: z.number(),
      bits: z.number(),
      says: statement,
      how: statement,
      care: statement,
      outcomes: z.array(
        z.strictObject({
          p: believed,
          says: statement,
          parts: z.array(z.strictObject({ key: z.string().nullable().describe('null: nothing wrong'), p: believed })),
        }),
      ),
    })
    .nullable(),
  left: z.array(z.int()).describe('Lines whose test says nothing on this controller'),
  failing: z.array(z.enum(WIRING_STATES)).describe('States in which alone something fails, as the lines say'),
})

const use = z.enum(['in_use', 'common', 'spare', 'unknown'])
export const wiringOutput = z.strictObject({
  verb: z.literal('wiring'),
  property: z.string(),
  runs: z.array(
    z.strictObject({
      cable: z.string(),
      laid: z.boolean().describe('In the ground or seen: the plan leaves it as it is'),
      needs: z.strictObject({ stations: z.int(), masters: z.int(), commons: z.int(), spares: z.int(), cores: z.int() }),
      has: z.int(),
      jacket: z.int().nullable(),
      advised: z.enum(['multicore', 'single']),
      because: z.string(),
      cores: z.array(
        z.strictObject({
          colour: z.string().nullable(),
          planned: z.string(),
          use,
          terminal: z.string().nullable(),
          cutAt: z.array(z.string()),
          through: z.array(z.string()),
        }),
      ),
    }),
  ),
  boxes: z.array(
    z.strictObject({
      box: z.string(),
      cores: z.strictObject({ in_use: z.int(), common: z.int(), spare: z.int(), unknown: z.int() }),
      joints: z.array(
        z.strictObject({
          serves: z.enum(['common', 'lead', 'other']),
          terminal: z.string().nullable(),
          conductors: z.int(),
          made: z.boolean(),
          connectors: z.array(z.string()).describe('On record'),
          ways: z
            .array(z.strictObject({ connectors: z.array(z.string()), jumpers: z.int() }))
            .describe('With what is carried, the fewest first'),
        }),
      ),
    }),
  ),
})

const procedureStepOut = z.strictObject({
  key: z.string().describe('Its name, and what it is for where it is there several times'),
  says: statement,
  why: statement.nullable(),
  hold: z.boolean().describe('Nothing after it before it is answered, or refused with a reason'),
  cautions: z.array(z.strictObject({ hazard: z.enum(HAZARDS), says: statement })),
  asks: z.enum(['tick', 'choice', 'figure', 'measure', 'text', 'day', 'photo', 'settle']),
  options: z.array(statement).optional(),
  expected: z.strictObject(expectation).optional().describe('Of ohms, by the record'),
  writes: z.enum(DEEDS).optional().describe('What its answer changes on record'),
  after: z
    .array(z.strictObject({ step: z.string(), is: z.array(z.string()) }))
    .optional()
    .describe('Only after one of these answers'),
  minutes: z.number().optional(),
})
export const proceduresOutput = z.strictObject({
  verb: z.literal('procedures'),
  property: z.string(),
  procedures: z.array(
    z.strictObject({
      id: z.string(),
      title: z.string(),
      family: z.enum(FAMILIES),
      licensed: z.boolean().describe('Parts of it are for a licensed person'),
      kit: z.array(z.enum(KIT)),
      things: z.int().describe('On how many things of the property it can be done'),
      on: z
        .array(z.strictObject({ thing: z.string(), steps: z.array(procedureStepOut) }))
        .describe('On the first thing, or on every one of --on; its bare steps where nothing suits it'),
    }),
  ),
})

const ends = z.array(z.int()).describe('Ends by their numbers from 1, as they lie there')
const endOf = z.enum(['first', 'second'])
export const coresOutput = z.strictObject({
  verb: z.literal('cores'),
  n: z.int(),
  cores: z
    .array(z.strictObject({ first: z.int(), second: z.int() }))
    .describe('For every core the number of its group at the first end and at the second; the known one is the last'),
  known: z.int().describe('Known conductors that go along as one more'),
  methods: z
    .array(z.strictObject({ method: z.enum(SORTING_METHODS), minutes: z.number().nullable(), walks: z.int() }))
    .describe('The quickest first; null where it cannot be done with these hands'),
  tags: z
    .array(z.strictObject({ ohm: z.number(), low_ohm: z.number(), high_ohm: z.number() }))
    .describe('Resistors of the usual stock that are told apart, and what a meter may show of each'),
  found: z
    .strictObject({
      named: z.array(z.strictObject({ first: z.int(), second: z.int() })),
      broken: z.strictObject({ first: z.int().nullable(), second: z.int().nullable() }).nullable(),
      touching: z.strictObject({ first: ends, second: ends }).nullable(),
      touchingOnce: z.boolean().describe('Two touch at one end and not at the other: one trial was misread'),
      unnamed: z.strictObject({ first: ends, second: ends }),
      impossible: z.boolean().describe('Something was joined or read otherwise than it was written'),
    })
    .optional(),
  next: z
    .strictObject({ at: endOf, groups: z.array(ends) })
    .nullable()
    .describe('What to join next; null where nothing more is to be told apart'),
})

const span90 = z
  .strictObject({ low: z.number(), mid: z.number(), high: z.number() })
  .describe('Holds it nine times in ten')
export const traceOutput = z.strictObject({
  verb: z.literal('trace'),
  sections: z
    .record(z.string(), z.strictObject({ across_m: span90, cover_m: span90 }))
    .describe('Of every section with three readings or more: the line’s place across, and the soil over it'),
  finds: z
    .array(z.strictObject({ along_m: span90, kind: z.enum(FIND_KINDS), p: z.number() }))
    .describe(
      'local: a decoder or a splice; step: a T; end: a break; spread_end: a valve. p: how sure that it is anything',
    ),
})

const chanceAt = { x_m: z.number(), y_m: z.number(), p: z.number() }
export const locateOutput = z.strictObject({
  verb: z.literal('locate'),
  box: z.string(),
  spot: z.strictObject({ x_m: z.number(), y_m: z.number() }).describe('The likeliest; metres east and north'),
  cell_m: z.number().describe('The side of a cell'),
  half_m2: z.number(),
  most_m2: z.number().describe('The area that holds the box nine times in ten'),
  cells: z
    .array(z.strictObject({ ...chanceAt, held: z.number() }))
    .describe('Middles of cells, the likeliest first; held: the part that they and all before them hold'),
  probes: z.array(z.strictObject(chanceAt)).describe('Where to probe, in this order'),
  evidence: z
    .strictObject({
      drawn: z.boolean(),
      strays: z.int(),
      paced: z.int(),
      line: z.int(),
      met: z.int(),
      probed: z.int(),
    })
    .describe('How much of each kind spoke'),
})

const pathState = z.strictObject({
  line_A: z.number().describe('What leaves the controller on the path'),
  terminal_V: z.number(),
  decoders: z
    .array(
      z.strictObject({
        decoder: z.string(),
        address: z.int().nullable(),
        place: z.string(),
        volt_V: z.number(),
        minimum_V: z.number(),
        enough: z.boolean(),
      }),
    )
    .describe('Volts between the path leads, the weakest first'),
  coils: z
    .array(
      z.strictObject({
        coil: z.string(),
        decoder: z.string(),
        volt_V: z.number(),
        current_A: z.number(),
        minimum_V: z.number(),
        enough: z.boolean(),
      }),
    )
    .describe('Behind the outputs that are on'),
  stretches: z
    .array(
      z.strictObject({
        cable: z.string(),
        core: z.string(),
        from: z.string(),
        to: z.string(),
        volt_V: z.number(),
        current_A: z.number(),
      }),
    )
    .describe('Volts lost on every length of either leg'),
})
const kindsCount = z.strictObject({ decoders: z.int(), cuts: z.int(), cents: z.int().nullable() })
const twoLegs = <T extends z.ZodType>(of: T) => z.tuple([of, of])
export const pathOutput = z.strictObject({
  verb: z.literal('path'),
  property: z.string(),
  controller: z.string(),
  system: z.string(),
  on: z.array(z.int()),
  constant_current: pathState.describe('Loads draw what their sheet says, in phase: the safe case'),
  constant_impedance: pathState.describe('Loads as impedances that draw that at the volts of the path and of the coil'),
  register: z.array(z.strictObject({ code: z.string(), says: statement })),
  order: z.array(
    z.strictObject({
      outputs: z.int(),
      power: z.enum(['low', 'high']),
      drives: z.enum(['valves', 'master', 'pump', 'flow_sensor']),
      count: z.int(),
      addresses: z.array(z.int()),
    }),
  ),
  reach: z
    .array(z.strictObject({ gauge: z.string(), reach_m: z.number().nullable() }))
    .describe('One way, every decoder of the path at the far end with the outputs’ heaviest coil on'),
  arrestors: z
    .strictObject({
      near_m: z.number(),
      branch_m: z.number(),
      spacing_m: z.number(),
      now: z.array(z.string()).describe('Boxes that have one'),
      breaches: z.int().describe('Rules that those break'),
      more: z.array(z.string()).describe('The fewest to add'),
      fewest: z.array(z.string()).describe('The fewest from nothing'),
      impossible: z.int().describe('Rules that no set of boxes keeps: a box is wanted there'),
    })
    .optional(),
  kinds: z
    .strictObject({ now: kindsCount, best: kindsCount, byPrice: z.boolean() })
    .describe('Decoders and the joints they are in, as on record and as would do; prices from the property’s list'),
  sizes: z
    .strictObject({
      answer: z.enum(['sized', 'out_of_reach', 'nothing_free', 'nothing_wired', 'no_time']),
      weakest: z
        .strictObject({ device: z.string(), volt_V: z.number(), minimum_V: z.number(), margin_V: z.number() })
        .nullable()
        .describe('The decoder or coil with least to spare at its worst'),
      cost_cents: z.int().optional(),
      bound_cents: z.int().nullable().optional().describe('Nothing that holds costs less; null in a loop'),
      sizes: z
        .array(z.strictObject({ cable: z.string(), gauge: z.string(), length_m: z.number() }))
        .optional()
        .describe('Metres of conductor'),
    })
    .optional(),
  conversion: z
    .strictObject({
      cable: z.string(),
      legs: twoLegs(z.array(z.string())),
      out: z.array(z.strictObject({ core: z.string(), why: z.string() })),
      leg_ohm: twoLegs(z.number()),
      loop_ohm: z.number(),
      decoders: z.int(),
      far_V: z.number().nullable(),
      obstacles: z.array(z.string()),
      boxes: z.array(
        z.strictObject({
          place: z.string(),
          at_m: z.number(),
          ends: twoLegs(z.int()),
          connectors: twoLegs(z.array(z.string()).nullable()),
          loop_ohm: z.number(),
        }),
      ),
    })
    .optional(),
})

export const scheduleOutput = z.strictObject({
  verb: z.literal('schedule'),
  property: z.string(),
  controller: z.string(),
  zone: z.string(),
  mode: z.enum(['stack', 'overlap']),
  delay_s: z.int(),
  runs: z
    .array(z.strictObject({ terminal: z.string(), program: z.string(), start: z.string(), end: z.string() }))
    .describe('By their starts; times of the zone’s clock'),
  findings: z
    .array(z.looseObject({ code: z.string(), says: statement }))
    .describe('Once for each thing that is wrong, at its first time, with the figures of its sentence'),
})

const likelihood = z.number().min(0).max(1)
export const sequencerOutput = z.strictObject({
  verb: z.literal('sequencer'),
  property: z.string(),
  sequencers: z.array(
    z.strictObject({
      sequencer: z.string(),
      controller: z.string(),
      terminals: z.array(z.string()).describe('The screws that feed it, in the order of the door'),
      outputs: z.array(z.array(z.string())).describe('Valves by output, as they are on record'),
      off_ms: z.number(),
      turns: z.int().describe('Counted, each a time at which power came after long enough without'),
      never: z.array(z.string()).describe('Valves that never came in two rounds of what was seen'),
      lost: z.int().describe('Looks that no count allowed, so that it began anew there'),
      next: z.array(z.strictObject({ valve: z.string().nullable(), likelihood })).describe('The likeliest first'),
      resync: z
        .strictObject({
          terminal: z.string(),
          until: z.string(),
          pulses: z.array(z.strictObject({ times: z.int(), likelihood })),
        })
        .nullable(),
      checks: z.array(z.strictObject({ code: z.string(), says: statement })).describe('By the programs on record'),
    }),
  ),
})

const money = z.number().describe('In the currency, by the usual figures of docs/numbers.md')
export const repairOutput = z.strictObject({
  verb: z.literal('repair'),
  property: z.string(),
  finding: z.string(),
  options: z
    .array(
      z.discriminatedUnion('possible', [
        z.strictObject({
          code: z.enum(REPAIR_CODES),
          possible: z.literal(true),
          says: statement,
          minutes: z.number().describe('On the property, its retest included'),
          material: money,
          cost: money,
          dig_m: z.number(),
          risk: statement,
          temporary: z.boolean().describe('Stands on the property’s list until it is undone'),
          commands: z.array(z.looseObject({ do: z.string() })).describe('What the record becomes by it, as one batch'),
        }),
        z.strictObject({
          code: z.enum(REPAIR_CODES),
          possible: z.literal(false),
          says: statement,
          why: z.strictObject({ code: z.string(), says: statement }),
        }),
      ]),
    )
    .describe('Possible ones first, the cheapest at the top and what is for now only behind them'),
  nearby: z
    .array(z.strictObject({ code: z.string(), says: statement, minutes: z.number(), saves_min: z.number() }))
    .describe('What else is due where it is open, what saves most for its minutes first'),
})

const amount = z.string().describe('Exact, in the currency')
export const quoteOutput = z.strictObject({
  verb: z.literal('quote'),
  property: z.string(),
  repairs: z
    .array(z.strictObject({ part: z.string(), says: statement }))
    .describe('What is quoted, in the order of its lines'),
  without: z
    .array(z.strictObject({ part: z.string(), why: statement }))
    .describe('What is known to be bad and no repair is possible of'),
  currency: z.string(),
  lines: z.array(
    z.strictObject({
      key: z.string(),
      item: z.string().nullable().describe('The part that it mends, by its key; null: all of it'),
      place: z.string().nullable(),
      code: z.string(),
      unit: z.enum(['min', 'visit', 'piece', 'm']),
      quantity: z.string(),
      name: z.string(),
      each: z.string().describe('A fraction, its mark-up in it'),
      amount,
      tax: z.string().nullable(),
    }),
  ),
  groups: z.array(z.strictObject({ place: z.string().nullable(), sum: amount })),
  net: amount,
  taxes: z.array(z.strictObject({ code: z.string(), name: z.string(), percent: z.string(), of: amount, amount })),
  adjustment: amount.describe('What rounding the total to its step adds or takes'),
  total: amount,
  roundings: z
    .array(z.strictObject({ of: z.string(), exact: z.string().describe('A fraction'), to: amount }))
    .describe('Every figure that was rounded'),
})

export const OUTPUTS = {
  check: checkOutput,
  expect: expectOutput,
  judge: judgeOutput,
  solve: solveOutput,
  deck: deckOutput,
  size: sizeOutput,
  material: materialOutput,
  stations: stationsOutput,
  wiring: wiringOutput,
  simulate: simulateOutput,
  hunt: huntOutput,
  procedures: proceduresOutput,
  cores: coresOutput,
  trace: traceOutput,
  locate: locateOutput,
  path: pathOutput,
  schedule: scheduleOutput,
  sequencer: sequencerOutput,
  repair: repairOutput,
  quote: quoteOutput,
} as const
