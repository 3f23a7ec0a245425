/** Every word of the interface. */
export const appEn = {
  app: {
    name: 'Field Thread', home: 'Properties', skip: 'Skip to the work', saved: 'All saved', keys: 'Keys', find: 'Find', back: 'Back', close: 'Close', cancel: 'Cancel', undo: 'Undo', retry: 'Try again',
    kept: 'kept on this device, {count} to send', sending: 'sending {count}', outdated: 'kept on this device, {count} to send: reload this page first', offline: 'no answer from the server', refusedTitle: 'Not taken by the record', discard: 'Leave it out', more: 'More',
    viewing: 'The record as it was at change {revision}. Nothing can be changed here.', backToNow: 'Back to now', dusk: 'Dusk', noon: 'Noon', theme: 'Light or dark',
    notFound: 'There is nothing at this address.', toProperties: 'To the properties', loading: 'Loading…',
  },
  state: { fits: 'fits', doubtful: 'doubtful', fault: 'fault', none: 'not measured' },
  properties: {
    title: 'Properties', open: 'Open', import: 'Open a property file', importing: 'Reading the file…', none: 'No properties yet.',
    noneHow: 'Open a property file to begin: a .json saved from another copy of Field Thread, or written to the documented format.',
    stations: 'no stations | 1 station | {count} stations', controllers: 'no controller | 1 controller | {count} controllers', visits: 'no visits | 1 visit | {count} visits',
    last: 'last on {day}', never: 'never visited', filter: 'Filter by name', noMatch: 'No property has “{text}” in its name.',
    more: 'and {count} more: write a part of the name to find them.',
    here: 'This property is here already', hereHow: 'It was left as it is. Open it, or take the file in as a copy with an id of its own.', asCopy: 'Take it in as a copy', copyName: 'Name of the copy', copyOf: '{name}, copy',
    broken: 'The file was not taken in', brokenHow: 'Nothing was changed. What is in the way:', unreachable: 'The list cannot be loaded just now.',
    code: 'Local code and licensed practice come first. Mains wiring belongs to a licensed electrician where the code says so.',
  },
  places: { threads: 'Threads', test: 'Test', record: 'Record', properties: 'Properties' },
  threads: {
    title: '{name}, threads', sub: 'what each thread should read from C at {at_C}', subVisit: 'read from C at {at_C}, conductors off',
    expected: 'expected Ω', measured: 'measured Ω', common: 'common, {colour}', distance: 'to one scale, distance along the conductors', noController: 'No controller is on record for this property.',
    noTerminals: 'No station or lead is on record for this controller.', choose: 'Choose a thread to see what makes up its reading.', showing: 'Readings shown', noReadings: 'none, expected only',
    cut: 'cut here', poor: 'poor joint here', hatched: 'the fault lies in this stretch or in the joint at either end', unknown: 'not on record', station: 'Station {tag}', master: 'Master terminal {tag}', start: 'Start a sweep',
  },
  detail: {
    expected: 'expected {figure}', band: '{low} to {high}', bounds: 'The record of this thread is incomplete. A sound one reads between {low} and {high}.', open: 'By the record no current can pass here.',
    insulation: 'To earth: 1 MΩ or more is fine, 20 MΩ as new.',
    notReadable: 'Behind {by}: not readable from the cabinet. Read its coils at the box.', why: 'What makes it up', tolerance: 'Band', toleranceHow: 'Each source may take this much off; they add as the root of their squares, what is not on record in full.',
    history: 'Readings', chart: '{count} readings over the years', chartHow: 'At the temperature of the sweep shown; the shaded band is the record’s.', drift: 'Creeping up {perYear} Ω a year. It will leave the record’s band about {day}; nine times in ten not before {early} and not after {late}.', driftOpen: 'Creeping up {perYear} Ω a year. It will leave the record’s band about {day}, nine times in ten not before {early}; how late cannot be told yet.', baseline: 'baseline', accept: 'Take as baseline', acceptReason: 'taken as baseline', before: 'Before', noHistory: 'No readings yet.', struck: 'struck out: {reason}', name: 'Station name', rename: 'Rename', save: 'Save', zone: 'Zone', valve: 'Valve', rule: 'Rule of thumb', measured: 'measured', route: 'On its way', source: 'Copper 17.241 Ω·mm²/km by cross-section at 20 °C, 0.393 % per K; joints and coil as on record.',
    known: { seen: 'seen', reported: 'reported', assumed: 'assumed' },
  },
  test: {
    title: 'Test', sweeps: 'Sweeps at the controller', start: 'Start a sweep', of: 'Sweep of {name}', resume: 'Go on', look: 'Look', none: 'No sweep yet.', noneHow: 'A sweep reads the ohms from C to every terminal, conductors off the controller. It takes a few minutes and tells what is wrong and between which two boxes.',
    count: '{done} of {all} read', closed: 'ended', faults: 'no faults | 1 fault | {count} faults', doubtful: '{count} doubtful', titleField: 'Name of this sweep', defaultTitle: 'Sweep', controller: 'Controller', author: 'Your name, for the record', ground: 'Ground temperature, {unit}', groundHow: 'Copper reads 0.4 % more per K. A soil thermometer, or the cold tap.',
    meter: 'The meter', meterHow: 'Asked once; kept for the next sweep.', meterName: 'Which meter', openMark: 'Shows open as', markOL: 'OL', mark1: 'a bare 1', accuracy: 'Accuracy, %', offset: 'and ± Ω', leadZero: 'Leads together read, Ω', highest: 'Highest range, Ω', begin: 'Begin',
    bad: { number: '{field}: write a number from {low} to {high}.', empty: '{field}: write something.' },
  },
  caution: {
    title: 'Before the first reading', schedule_paused: 'Schedule paused: a program starting now would confuse every reading and soak the crew.',
    power_off: 'Controller power off. Mains inside the cabinet is for a licensed electrician.', leads_off: 'Common and all conductors off the terminals, ends apart. Look before you reach in.',
    tick: 'Done', after: 'Put the common and leads back one screw at a time, read each number twice. Then power, then the schedule.', dial: 'The schedule is running again', dialNot: 'The schedule stays paused', end: 'End the sweep', ended: 'Sweep ended. {dial}',
  },
  sweep: {
    title: '{name} sweep', sub: 'C to each terminal, conductors off', input: 'Reading for {tag}, ohms', expected: 'expected {figure}', next: 'Next {tag}', done: 'Done', open: 'open', short: 'short', skip: 'Skip', previous: 'Back', erase: 'Erase the last character', point: 'Decimal point', shortAsk: 'Short: what does it read?', undoLast: 'Undo last', undone: 'Struck out: {tag}', undoReason: 'undone', again: 'read again', all: 'All terminals are read.', someLeft: '{count} terminal not read. | {count} terminals not read.',
    notFigure: 'Not a reading. Write ohms as 34.6, 1.2k or 0.5M, or OL for open.', overRange: 'Over this meter’s highest range. Write OL.', mark: 'A bare 1: open or one ohm? Press o for open, or write 1.0.', conclusionNone: 'Everything read fits.', conclusionSome: 'So far', notReadable: 'not readable here', progress: '{done} of {all} read', thousand: 'thousand', million: 'million', saveThis: 'Keep', rowHow: 'Enter keeps the reading and goes on', tooMany: 'The joint conclusion follows when reading pauses.',
    notThere: 'This sweep is not on record here.',
  },
  checks: {
    title: 'More checks at the cabinet', how: 'Station to station, to earth, volts, clicks, tester lamps.', count: '1 check | {count} checks', kind: 'What', terminal: 'Terminal', other: 'and', volts: 'Volts', ohms: 'Ohms, or OL', keep: 'Keep', answer: 'What it gave', strike: 'Strike out: {what}',
    choice: { between: 'Station to station', earth: 'To earth', supply: 'Supply volts', volts: 'Terminal volts, its station on', click: 'Click heard', tester_coil: 'Tester: coil lamps', tester_power: 'Tester: 24 V lamp' },
    badVolts: 'Volts: write a number from 0 to 300.', sameTwice: 'Choose two terminals that differ.',
    powerOn: 'Power is on for this: common and lead back on their terminals, clips insulated, nothing of yours on the mains side.', leadsOff: 'Power off, common and conductors off the terminals.', earthHow: 'Power off, conductors off. Swap the leads and read twice: soil makes its own volts. An ohmmeter only, never an insulation tester with coils joined.',
  },
  compare: {
    title: 'Two sweeps side by side', choose: 'Compare two sweeps', first: 'Earlier', second: 'Later', change: 'change', how: 'Both brought to {at_C}, so that the weather does not count.', none: 'There must be two sweeps of one controller to compare.', bothOpen: 'open, as before', opened: 'now open', closedAgain: 'reads again', notBoth: 'not read both times',
  },
  csv: {
    title: 'Readings as CSV', out: 'Save these readings as CSV', outAll: 'Save all readings as CSV', open: 'Open a CSV of readings', how: 'Columns terminal and reading, in any order; “to” for a second terminal. Nothing is kept before you have seen it.', preview: '1 reading understood. | {count} readings understood.', keep: 'Keep 1 reading | Keep {count} readings', replaces: 'replaces {before}', broken: 'The file was not taken in. Nothing was kept:', otherController: 'Not of this controller; it will be left out.',
  },
  record: {
    title: 'Record', settings: 'Settings', findings: 'What the record leaves open', noFindings: 'Intent and wiring agree, and nothing is missing.', file: 'File', save: 'Save as a file', saveHow: 'Everything of this property, as open JSON with a documented format.', steps: 'Changes', noSteps: 'No changes yet.', undoStep: 'Undo the last change', undoneStep: 'taken back', before: 'See it before', undoes: 'takes back change {revision}', step: 'Change {revision}: {what}', by: '{author}, {day}',
    name: 'Name', contractor: 'Contractor', ground: 'Usual ground temperature', units: 'Units', metric: 'metres, °C', imperial: 'feet, °F', soundSplice: 'Sound joint, Ω', coilTolerance: 'Coil tolerance, %', lengthTolerance: 'Length tolerance, %', ruleLow: 'Rule of thumb from, Ω', ruleHigh: 'to, Ω', commonColour: 'Common colour', why: { soundSplice_ohm: 'A good joint has 0.01–0.05 Ω.', coilTolerance_ratio: 'Coils of one kind differ by up to 8 %.', lengthTolerance_ratio: 'Trenched lengths are recorded within 5 %.', ground_C: 'Used where a visit has none of its own.', ruleOfThumb_ohm: 'Shown beside each verdict; it passes some faults.' }, saved: 'Kept.', field: '{field}: {why}', code: 'Local code and licensed practice come first.', weight: { wrong: 'wrong', doubt: 'doubtful', gap: 'not known' },
  },
  keys: {
    title: 'Keys', enter: 'keep the reading, go to the next', o: 'open', z: 'a short: then its ohms', s: 'skip', up: 'the thread before', down: 'the thread after', undo: 'undo', find: 'find a station, box or core', help: 'this list', esc: 'close, or clear',
  },
  find: { title: 'Find a station, box or core', none: 'Nothing matches.', station: 'station', box: 'box', core: 'core', hint: 'Type a name, a number or a colour' },
}
