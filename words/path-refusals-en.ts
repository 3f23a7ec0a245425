/** What two-wire paths refuse. In the app these sentences come with that place; shell and server have them from the start. */
export const pathRefusalsEn = {
  path_without_system:
    '{where}: nobody has said which system the path speaks. Choose one at the controller, under Two-wire path.',
  ask_the_sheet: '{where}: the profile of {name} does not say. Ask the maker’s sheet and write it into the profile.',
  no_such_number: '{where}: no decoder on the path answers to {address}. Look it up in the register of decoders.',
  no_path_screws: '{where}: this controller has no pair of path screws. Give it a path first.',
  decoder_unknown: '{where}: no decoder of this path is tagged “{tag}”. Mend the tag, or plan that decoder first.',
  no_path: 'No controller of this property has a two-wire path. Give two of its screws the role “path”.',
  which_path: '{where} “{tag}” is none of those with a path: {options}. Name one of them.',
  no_such_cable: '{where}: no cable is tagged “{tag}”. Name one as on its jacket or in the list of cables.',
  box_twice: '{where}: {tag} is there already, or is the controller’s own place. Name each box once.',
  no_path_at_box: '{where}: no path comes to {tag}. Name a box of this list, or one that the path has a joint in.',
  no_number_left: '{where}: the system has no numbers left for {count} decoders. Widen its range, or use two paths.',
  decoder_on_one_leg: 'Both path leads of {decoder} are on one conductor. Put one on each.',
  decoder_turned: '{decoder} has its path leads the wrong way round, and this system has a polarity. Change them over.',
  coil_dc_on_path: '{coil} behind {decoder} is a DC coil; the system runs AC coils alone. Change the coil.',
  coil_heavy: '{coil} is a heavy coil for {decoder} at its low power level. Set the decoder to the high one.',
  coil_lead_long:
    'The lead from {decoder} to its coil is {length_m} long, and the system allows {most_m}. Move the decoder nearer to the valve.',
  coil_lead_untwisted:
    'The lead from {decoder} to its coil is no twisted pair, and the system wants one. Change the lead, or move the decoder to the valve.',
  decoder_unnumbered: '{decoder} has no number yet. Give it one before it goes into the ground.',
  decoder_outputs: '{decoder} has {count} outputs on record, and the system has at most {most}. Look at the decoder.',
  output_coils:
    'An output of {decoder} has {count} coils, and the system allows {most}. Give one an output of its own.',
  address_out_of_range: '{decoder} has the number {address}; the system has {from} to {to}. Give it another.',
  address_reserved: '{decoder} has the number {address}, which the system keeps for itself. Give it another.',
  address_twice: 'The number {address} is given twice: {decoders}. Both would answer. Give one of them another.',
}
