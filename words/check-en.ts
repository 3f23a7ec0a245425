/** What single faults would explain the readings of a sweep, and what to do next: words of the shell's check. */
export const checkEn = {
  conclusion: {
    open_thread: 'Terminal {tags} is open: its lead, its coil or its own joints.',
    open_common_between: 'The common is cut between {from} and {to}.',
    open_common_first: 'The common is cut between the controller and {to}.',
    open_common_in: 'The common is open in {from}.',
    open_cable_between: 'A cable is cut through between {from} and {to}.',
    open_cable_first: 'A cable is cut through between the controller and {to}.',
    open_cable_in: 'Conductors are open in {from}.',
    branch_coil: 'Terminal {tags} reads as if {part} were not there: open in its coil, its lead or its own joints.',
    branch: 'Terminal {tags} reads as if one of its ways were not there: open at {at}.',
    resistive_thread:
      'Terminal {tags} reads {excess_ohm} high: a poor joint on its lead, at its coil or on its own tap.',
    resistive_common_between: 'A poor joint on the common between {from} and {to} adds {excess_ohm}.',
    resistive_common_first: 'A poor joint on the common between the controller and {to} adds {excess_ohm}.',
    resistive_common_in: 'A poor joint on the common in {from} adds {excess_ohm}.',
    resistive_cable_between: 'Something between {from} and {to} adds {excess_ohm}.',
    resistive_cable_first: 'Something between the controller and {to} adds {excess_ohm}.',
    resistive_cable_in: 'Something in {from} adds {excess_ohm}.',
    coil_part: 'Terminal {tags} reads low: about {share_ratio} of its coil’s ohms are missing, as shorted turns do.',
    coil_shorted: 'The coil of terminal {tags} is shorted: only its wire is in the reading.',
    short: 'On terminal {tags} lead and common touch, {distance_m} from the controller at the most.',
    short_at_coil: 'Terminal {tags} reads its wire alone: its coil is shorted, or its leads touch in the box.',
    second_coil: 'Terminal {tags} reads like two coils on one lead; a coil with half its turns shorted looks the same.',
    leads_joined: 'The leads of {one} and {other} touch: both read the two coils together.',
    lead_moved: 'The lead of {other} seems to sit on {one}: {one} reads both coils and {other} nothing.',
    swapped: '{one} and {other} read as if their leads were swapped.',
    swapped_perhaps: '{one} and {other} may be swapped; ohms cannot tell. Run both and see which zone waters.',
    unexplained: 'No single fault on record explains {tags}: more than one fault, or the record is wrong there.',
  },
  next: {
    read_coil_at_box: 'Next: open box {to}, take the coil off and read its ohms alone.',
    read_coil_at_home: 'Next: take the coil’s leads off in {from} and read its ohms alone.',
    open_near_box:
      'Next: open {from} and look at the joint of the common, then {to}. Measure the common from there to the controller.',
    check_home_then_box:
      'Next: bite the clip into C again, then open {to} and measure the common back to the controller.',
    look_along:
      'Next: look where the ground was opened between {from} and {to}; take lead and common apart in {to} and read again.',
    look_for_second: 'Next: run the station and see which valves answer; look for a second coil in the box.',
    look_at_terminals:
      'Next: look at both terminals, one screw at a time; run both stations and see which zone waters.',
    repeat: 'Next: bite the clips in again and repeat the reading.',
    check_record: 'Next: read from station to station, and check the record of these threads in their boxes.',
  },
} as const
