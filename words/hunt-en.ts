/** Words of the hunt for a fault; they come with Diagnose, and with the shell. */
export const huntEn = {
  part: {
    joint: 'the joint of {name} in {box}', joint_common: 'the common’s joint in {box}', joint_other: 'the joint in {box}', run: 'the lead of {name} between {from} and {to}', run_common: 'the common between {from} and {to}', run_other: '{colour} of {cable} between {from} and {to}',
    touch: '{one} against {two} between {from} and {to}', coil: 'the coil of {name} in {box}', valve: 'the valve of {name} in {box}, not its wiring', pair: 'the leads of {one} and {two}', terminal: 'the output of terminal {terminal}',
    supply: 'the transformer or its fuse', sensor: 'the sensor terminals', water: 'the water: main, pump or pressure', common: 'the common', nothing: 'nothing in the wiring',
  },
  cause: {
    open: 'open', series: 'resistive', leak: 'leaking to earth', touch: 'touching', intermittent: 'comes and goes', coil_open: 'open winding', coil_short: 'shorted', coil_part: 'shorted turns', coil_dc: 'a latching coil', coil_kind: 'not the coil on record',
    swapped: 'swapped', doubled: 'both under one screw', terminal_dead: 'dead', supply_dead: 'dead', sensor_open: 'open', stuck_shut: 'stuck shut', stuck_open: 'stuck open', water_off: 'off',
  },
  huntTest: {
    ohms: 'Ohms, {from} to {to}', ohms_earth: 'Ohms, {from} to earth', supply: 'Volts of the transformer', volts: 'Volts at terminal {at}', click: 'Listen for {name}', tester_coil: 'Coil lamp at terminal {at}', tester_power: 'Power lamp at terminal {at}',
    water: 'Run {name}: what waters?', swap_test: 'Lead of {name} on terminal {onto}', tone: 'Tone on terminal {at}', coil_ohms: 'Ohms of the coil of {name} alone', coil_volts: 'Volts across the coil of {name}', loop_lead: 'Ohms from the bare lead of {name}',
    loop_common: 'Ohms from the bare common at {name}', lead_earth: 'Bare lead of {name} to earth', lead_through: 'Lead of {name} by itself, through the soil', common_earth: 'Bare common at {name} to earth', energise: 'Feed the coil of {name} from the tester', by_hand: 'Open {name} by hand', look: 'Look at {part} and tug', remake: 'Make {part} anew',
  },
  huntHow: {
    ohms: 'All leads and C off the controller. Clips on the two conductors; bite twice before you call it open.', ohms_earth: 'All leads and C off. One clip on the conductor, one on a rod in moist soil; swap the clips and read again.',
    supply: 'At the controller’s own terminals, at this moment.', volts: 'Leads and C on, {at} switched on, its valve connected. Clips on C and {at}.', click: 'Leads on, {at} switched on.', tester_coil: 'Leads off; tester on the lead of {at} and the common.', tester_power: 'Leads on, {at} switched on; tester on C and {at}.',
    water: 'Leads on, {at} switched on for a minute. Tap every zone that waters.', swap_test: 'Power off; move the one lead; power on and switch {onto} on. Put it back afterwards.', tone: 'Leads off, 0 V read first. Follow from the cabinet and note where the tone is lost.',
    coil_ohms: 'Undo the lead’s joint; clips on the coil’s own two wires.', coil_volts: 'Switch {at} on at the cabinet first. Clips on the coil’s two wires, the coil left on: a meter draws nothing.', loop_lead: 'Jumper from lead {at} to C at the cabinet, both off the controller. Lead’s joint undone: clips on the bare lead and the common.',
    loop_common: 'Jumper from lead {at} to C at the cabinet, both off the controller. Common’s joint undone: clips on the common that comes in and the lead.', lead_earth: 'Lead off at the cabinet, its joint here undone. One clip on the bare lead, one on a rod in moist soil.', lead_through: 'Lead {at} off its screw and clipped to a rod at the cabinet. Its joint here undone: one clip on the bare lead, one on a rod in moist soil. Some hundred ohms of soil: the lead is whole. OL: it is cut.', common_earth: 'C and all leads off at the cabinet, the common’s joint here undone. One clip on the common that comes in, one on a rod in moist soil.',
    energise: 'Lead’s joint undone; tester on the coil’s two wires.', by_hand: 'Master valve open first. Bleed screw, or a quarter turn of the coil; shut both again.', look: 'Every end home, no green copper, no water. Tug each wire.', remake: 'Cut it out, back to bright copper, make it anew; then try the dead thread again.',
  },
  huntCare: {
    on: 'Power is on. Keep hands off the mains side; local code and licensed practice come first.', off: 'Power off at the outlet before any lead comes off.', earth: 'Have buried services located before a rod is driven.', box: 'Look for animals and glass before a hand goes in the box.', undone: 'Power off before a joint is opened.',
    water: 'Water under pressure stands behind a loosened coil: eyes away.',
  },
  huntAnswer: {
    open: 'open', figure: '{low}–{high}', below: 'under {high}', above: '{low} or more', heard: 'heard', not_heard: 'not heard', flows: 'water flows', dry: 'no water', sound: 'sound', bad: 'bad', waters: 'waters', waters_not: 'does not water', lit: 'lit', dark: 'dark', good: 'coil good', lamp_open: 'coil open', lamp_short: 'coil short',
    soil: 'soil, up to 5 kΩ', through: 'heard to the end', lost: 'lost on the way', means: '{answer}: {parts}', likely: '{part} ({p_ratio})',
  },
  hunt: {
    named: 'It is {part}: {cause}. Belief {p_ratio}.', namedPlain: 'It is {part}. Belief {p_ratio}.', nothing: 'Nothing is wrong in the wiring. Belief {p_ratio}.', undecided: 'No test that is left would tell these apart: {parts}.', open: 'Likeliest: {parts}.',
    strained: 'No single fault or pair explains every reading. The record of {box} may be wrong, or a reading slipped: read the oldest again.', allRun: 'Every zone waters. The tests that are left look for faults that stop no zone yet; you may stop here.', because: 'Most telling: {test}, {value}.', overturn: 'It would be overturned by: {test}, {answer}.',
  },
  diagnose: {
    title: 'Diagnose', none: 'No hunt is under way.', noneHow: 'Say who measures and with what; then tap the zones that stay dry.', start: 'Begin a hunt', titleField: 'Name of this hunt', defaultTitle: 'Hunt', hunts: 'Visit', another: 'New hunt',
    symptoms: 'Which zones stay dry?', symptomsNow: 'Which zones stay dry now, after the repair?', symptomsHow: 'Tap them, then say how the rest is.', dry: 'dry', rest: 'The others water', restUnknown: 'The others are not known', symptomsKept: '{dry} dry, {well} water', again: 'Ask again', wrongZone: 'Another zone waters',
    working: 'Weighing …', failed: 'The weighing stopped: {why}. Your readings are kept; reload the page.', why: 'How likely', likelyNothing: 'Nothing wrong in the wiring', causes: '{cause} {p_ratio}', next: 'Next', minutes: '{min} min', atCabinet: 'at the cabinet', atBox: 'in {box}', means: 'What each answer would mean',
    bits: 'tells {bits} bits', ohms: 'Ohms', volts: 'Volts', metres: 'Lost after, m', keep: 'Keep', open: 'Open', other: 'Another test', otherHow: 'Choose what you measured', which: 'What waters?', nothingWaters: 'nothing', done: 'Readings', strike: 'Strike out: {what}', struck: 'The reading did not count',
    mended: 'It is mended', mendedHow: 'Then start again at the first test: faults come in series.', mendedText: 'Mended: {part}', notIt: 'It was not that', youStand: 'You stand', helper: 'A helper is at the cabinet', season: 'This season', digging: 'Dug near', flooding: 'Water stood at', lightning: 'Lightning', othersWork: 'Somebody worked on the wiring', rodents: 'Animals at',
    meter: 'Meter', connect: 'Connect', disconnect: 'Leave the meter', address: 'Address of the meter', simulated: 'Simulated meter', simulatedHow: 'A property like this one with a hidden fault, for practice. Its readings go into this visit.', hidden: 'Hidden fault', chance: 'one by chance', take: 'Read the meter', takeSimulated: 'See what the simulated property shows', connected: '{name} is connected', trouble: { lost: 'The meter does not answer.', unclear: 'The meter’s answer is no reading of this test.' },
    strips: 'Where it may be', noLikely: 'No part stands out yet.', back: 'The first test again', badOhms: 'Write ohms, such as 34.6 or 1.2k, or OL for open.', badVolts: 'Write volts from 0 to 300.', badMetres: 'Write metres from 0 to 20 000.', count: 'reading {n}', noCommon: 'This controller has no common terminal on record, so nothing can be measured there.',
    care: 'Local code and licensed practice come first.', part: 'part',
  },
} as const
