/** The usual caution at a look: water under pressure behind a part that is loosened, or a box that is opened. */
export type LookCaution = 'water' | 'box'

/** Where a check ends: something was found, or the wiring is to be looked into after all. */
export interface CheckEnd {
  readonly end: 'found' | 'wiring'
  /** The key of its words, and of what is recorded. */
  readonly says: string
  /** What was found is the zone's valve itself, and is recorded as that part. */
  readonly valve: boolean
}

/** One look at something: its words have this key; each answer leads to another look or to an end. */
export interface Look {
  readonly caution: LookCaution | null
  readonly answers: Readonly<Record<string, string | CheckEnd>>
}

/** A short procedure at the valve, the heads or the water: looks by name, the first of them first. */
export interface Check {
  readonly first: string
  readonly looks: Readonly<Record<string, Look>>
}

const found = (says: string, valve = true): CheckEnd => ({ end: 'found', says, valve })
const wiring = (says: string): CheckEnd => ({ end: 'wiring', says, valve: false })

/** Inside the valve: what keeps it from shutting. */
const SEAT: Look = {
  caution: 'water',
  answers: {
    grit: found('grit'),
    diaphragm: found('diaphragm'),
    ring: found('ring'),
    sound: found('valve_worn'),
  },
}
/** Water is let through everything before the heads? */
const FLOW: Look = { caution: 'box', answers: { shut: found('flow_control'), open: 'by_hand' } }

/**
 * What is no matter of the wiring, or not yet: from the outside in, the cheapest look first. Source: what stops, opens
 * and starves a valve, in the field guide's table of symptoms and its page on valves.
 */
export const CHECKS = {
  will_not_stop: {
    first: 'lead_off',
    looks: {
      lead_off: { caution: 'box', answers: { stops: wiring('output_on'), runs: 'bleed' } },
      bleed: { caution: 'water', answers: { open: found('bleed_open'), shut: 'arrow' } },
      arrow: { caution: 'box', answers: { wrong: found('reversed'), right: 'seat' } },
      seat: SEAT,
    },
  },
  weeps: {
    first: 'when',
    looks: {
      when: { caution: null, answers: { off: 'lowest', on: 'flow' } },
      lowest: { caution: null, answers: { drains: found('drains', false), keeps_on: 'seat' } },
      seat: SEAT,
      flow: FLOW,
      by_hand: { caution: 'water', answers: { rises: wiring('pulls_weakly'), low: found('pressure', false) } },
    },
  },
  head_low: {
    first: 'alone',
    looks: {
      alone: { caution: null, answers: { alone: 'filter', several: 'flow' } },
      filter: { caution: null, answers: { rises: found('filter', false), low: 'riser' } },
      riser: { caution: null, answers: { wet: found('riser', false), dry: found('head', false) } },
      flow: FLOW,
      by_hand: { caution: 'water', answers: { rises: wiring('pulls_weakly'), low: found('pressure', false) } },
    },
  },
  no_water: {
    first: 'others',
    looks: {
      others: { caution: null, answers: { none: wiring('master'), some: 'flow' } },
      flow: { ...FLOW, answers: { ...FLOW.answers, open: 'water_by_hand' } },
      water_by_hand: { caution: 'water', answers: { waters: found('passage'), dry: found('blocked') } },
    },
  },
} as const satisfies Readonly<Record<string, Check>>
export type CheckId = keyof typeof CHECKS

/** A check by its name, its own names let go of: for whoever treats all alike. */
export const checkOf = (id: CheckId): Check => CHECKS[id]
