/** Words of sequencers on a controller’s leads. They come with the pages that show them. */
export const sequencerEn = {
  sequencers: {
    title: 'Sequencers',
    how: 'Each time power comes back a sequencer steps to its next valve. Every turn counts: programs, tests, hand starts, outages.',
    fed: '{sequencer} in {box}, on terminals {terminals}',
    output: 'Output {output}',
    capped: 'capped',
    next: 'Next',
    nothing: 'none: a capped output',
    percent: '{valve} {percent} %',
    counted: 'Nothing is counted yet. | 1 turn counted. | {count} turns counted.',
    byPrograms:
      '1 more by the programs on record since {since}. | {count} more by the programs on record since {since}.',
    lost: 'What watered did not fit the count once: it began anew there. | What watered did not fit the count {count} times: it began anew there.',
    never:
      '{valve} never came in two rounds of what was seen: {sequencer} has failed, or that output of it, or the valve. Read the coil in {box}, its lead off {sequencer}.',
    turn: 'It had a turn',
    saw: '{valve} watered',
    sawNone: 'None watered',
    unseen: 'Power was out, or somebody was there',
    unseenHow: 'How often it may have had power',
    back: 'Take back',
    last: 'Last: {what}',
    told: {
      turned: '{count} turn | {count} turns',
      perhaps: 'perhaps up to {count}',
      watered: '{valve} watered',
    },
    sync: 'Into step',
    syncHow:
      'Put terminal {terminal} on and off until {valve} waters; leave {off} s between. The next start is then the first of the cycle.',
    fit: {
      title: 'Fit a sequencer',
      how: 'One good lead feeds several valves of this box, one after the other: for a lead that is dead, a terminal that is dead, or a valve that is added.',
      host: 'The lead that feeds it',
      others: 'On it besides',
      means: 'Terminals',
      hows: {
        jumpered: 'Each its own, jumpered: minutes of their own',
        one: 'One for all, run as often as there are valves',
      },
      apart: 'Set apart: a live one between any two, for a controller that runs them in their order',
      comes: '{outputs} outputs, {joints} joints and {caps} caps.',
      one: 'Terminal {terminal} runs them all, with a run for each in the programs.',
      jumpered:
        'Terminals {terminals} are joined at the controller; leads that are not needed any more come off and are capped.',
      fine: 'The programs go with it as they are.',
      schedule: 'What the programs then lack; Schedule has the mend for each:',
      write: 'Write it down as fitted',
      done: '{sequencer} is on record. Try each turn once at the controller: like outputs come in an order that nobody knows yet.',
    },
    pulses: 'not at all: {percent} % | once: {percent} % | {count} times: {percent} %',
  },
}
