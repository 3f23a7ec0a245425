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
    lost: 'What watered did not fit the count once: it began anew there. | What watered did not fit the count {count} times: it began anew there.',
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
    pulses: 'not at all: {percent} % | once: {percent} % | {count} times: {percent} %',
  },
}
