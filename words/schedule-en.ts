/** Schedules: what is refused, and what is found. */
export const scheduleRefusalsEn = {
  no_such_zone: '{where}: “{name}” is no time zone of the database. Write one such as UTC or Etc/GMT-2.',
  no_program_name: '{where}: the line belongs to no program. Write its name, 1 to 20 letters.',
  no_start_time: '{where}: “{text}” is no list of times of day. Write 06:00, or several parted by blanks.',
  no_such_days:
    '{where}: “{text}” is none of: Mon Wed, odd, even, every 3 from 2027-05-01. Write one, or nothing for never.',
  no_minutes:
    '{where}: “{text}” is no number of minutes up to {most}. Write 10, 7.5, 1:30 for hours, or 10 + 10 for two runs.',
  no_seasonal: '{where}: “{text}” is no per cent. Write one figure from 0 to 1000, or twelve from January.',
  sequencer_holds:
    '{where}: a sequencer of {most} outputs takes two to {most} stations, not {count}. Choose others, or the larger one.',
  sequencer_elsewhere:
    '{where}: {name} has no valve in box {box}. A sequencer feeds valves of its own box; choose one there.',
  none_apart:
    '{where}: too few free screws to keep {count} stations apart with a live one between. Free one, or keep the screws.',
  no_valve_there: '{where}: {name} has no valve on record. Give it one, or choose another station.',
  no_common_there:
    '{where}: neither lead of {device} is on the common of this controller, or both are. Mend its joints on record first.',
  no_lead_there: '{where}: no core leads to the valve of {name}. Choose a station whose lead is good.',
  no_station: '{where}: minutes without a station. Name the screw, or the number on the path.',
  no_programs:
    '{where}: no programs of this controller are on record. Give a list of them as CSV, or enter them under Schedule.',
  no_from_date: '{where}: a date to begin from is wanted, such as 2027-05-01.',
  which_controller: '{where}: a schedule is one controller’s. Name one of them: {options}.',
  no_such_station: '{where}: the controller has no station {tag}. Look at its door, or at the register of its path.',
}

export const scheduleEn = {
  schedule: {
    overlap: '{program} runs beside {other} from {at}.',
    start_waits: 'The start of {program} at {at} waits {minutes} minutes for what runs before it.',
    window_exceeded: '{program} waters outside the hours it may, first station {station} at {at}.',
    over_run_cap:
      '{program} has station {station} run {minutes} minutes, and the controller takes {most}. Split it into {passes} passes.',
    too_many_starts: '{program} has {count} starts, and the controller takes {most}.',
    too_many_programs: 'There are {count} programs, and the controller takes {most}.',
    over_VA: 'With {stations} on at {at} the transformer gives {load_VA} VA, more than its {rating_VA}.',
    below_minimum_V: '{device} has {volt_V} V of the {minimum_V} V it needs, with {stations} on at {at}.',
    over_flow: '{point} gives {most} {unit}; with {stations} on at {at}, {flow} are wanted.',
    master_with_nothing: 'Station {station} brings the master valve on, and has no valve on record.',
    pump_with_nothing: 'Station {station} brings the pump on, and has no valve on record.',
    no_valve: 'Station {station} runs, and has no valve on record.',
    sequencer_adjacent:
      'Sequencer {sequencer} gets its next turn at {at} with less than {off_ms} ms without power: it does not step. Put another station between, or a delay.',
    sequencer_order: 'At {at} sequencer {sequencer} has output {output} on, which is not the valve of that station.',
    sequencer_missed: 'Outputs {outputs} of sequencer {sequencer} have days without a turn while another has one.',
    never_runs: 'Station {station}, {name}, is in no program that runs.',
  },
}
