/** Why a cable cannot become a two-wire path where it lies. */
export const noConversionEn = {
  not_from_here: '{cable} does not begin at this cabinet.',
  no_station_on_it: 'No station hangs on {cable} by a lead of its own.',
  valve_beyond: 'The valve of {name} lies beyond {cable}.',
  valves_apart: 'One output of a decoder does not serve all valves of {name}.',
  behind_sequencer: '{name} comes through a sequencer.',
  dc_coil: 'The coil of {name} wants direct current.',
  twisted_only: 'The system wants twisted pair; {cable} is none.',
  too_few_cores: '{cable} has {sound} sound cores left; it takes two.',
  no_number_left: 'The system has no number left for the decoders of {cable}.',
}
