import type { RefusalCode } from '../core/refusal'
import type { coreEn } from './core-en'
import type { pathRefusalsEn } from './path-refusals-en'
import type { quoteRefusalsEn } from './quote-en'
import type { scheduleRefusalsEn } from './schedule-en'

/** Why something was refused: `{where}` names the field; each sentence says the problem and the mend. */
export const refusalsEn = {
  missing: '{where} is missing. Add it; a {expected} is needed there.',
  wrong_type: '{where} is of kind {found}, but a {expected} is needed. Write it as a {expected}.',
  unknown_field: '{where} is not a field of this record. Take it out, or correct its spelling.',
  not_one_of: '{where} has a value that is not known. Use one of: {options}.',
  too_small: '{where} is too small or too short. Use at least {minimum}.',
  too_big: '{where} is too large or too long. Use at most {maximum}.',
  bad_key:
    '{where} has an id that cannot be used. Use 1 to 64 letters, digits, _ or -, beginning with a letter or digit.',
  bad_value: '{where} cannot be used as it is. Needed: {rule}.',
  already_there: '{where} is on record already. Choose another id, or change the record that is there.',
  no_such_record: '{where} is not on record; somebody may have removed it. Reload the property and look again.',
  tag_twice: '{where} repeats the tag “{tag}”. Give each its own tag.',
  two_commons:
    '{where} has more than one common terminal. Keep one with the role common and give the others another role.',
  terminal_taken:
    '{where} uses a terminal that another station has already ({name}). Move one of them to a free terminal.',
  address_taken:
    '{where} is the number {address}, which another station has already ({name}). Give each its own number.',
  program_twice: '{where} is a name that another program of this controller has. Give each its own.',
  bad_tag: '{where}: “{tag}” is no tag. Write 1 to 12 characters without spaces, colons or commas.',
  decoder_of_another:
    '{decoder} is of {is}, and the path speaks {path}. Two systems never share a path: change the decoder, or the profile of the path.',
  points_nowhere:
    '{where} points at “{id}”, which is not among the {collection}. Add that record, or point at one that exists.',
  no_coil_here: '{where} gives a coil to a device of kind {kind}, which has none. Set it to null.',
  stop_twice: '{where} names the stop “{id}” a second time. Name each stop once.',
  stop_before:
    '{where} lies at {at_m}, nearer than the stop before it at {reached_m}. Put the stops in the order of the cable.',
  not_an_inner_stop:
    '{where} names “{id}”, which is not an inner stop of the cable. A core ends at the first and last stop anyway; name only stops between them.',
  no_stretch_here: '{where} names “{id}”, at which no stretch of this cable begins. Name a stop before the last.',
  cap_holds_one: '{where} has {count} ends under a cap. A cap holds one; choose another connector or leave one end.',
  landing_needs_terminal:
    '{where}: a joint has the connector “terminal” when, and only when, one of its ends is a terminal. Change the connector or the ends.',
  no_such_end:
    '{where} names an end that does not exist ({end}). Core ends exist at the first and last stop and where the core is cut; ports by the kind of device.',
  end_elsewhere: '{where} is at {there}, but the joint is at {here} ({end}). Join only ends that lie in one place.',
  end_in_two_joints: '{where} is held by two joints ({end}, also in {other}). Take it out of one of them.',
  changed_since:
    '{where} has been changed since by somebody else, so it was left as it is. Change it by hand if it should go back.',
  conflict:
    '{where} was changed by somebody else meanwhile. Nothing of yours was written; look at the new state and change it again.',
  empty_file: 'The file is empty. Choose the file that was saved from a property.',
  not_json:
    'The file stops being readable at line {line}. It was cut off or edited; save it again from the property and use that copy.',
  not_our_file:
    'This is not a property file: its “format” is not “field-thread-property”. Choose the file that was saved from a property.',
  bad_version: 'The file’s “version” is not a whole number from 1 to {latest}. Save it again from the property.',
  newer_file:
    'The file is of version {version}; this copy of Field Thread reads up to {latest}. Update Field Thread, then open it again.',
  reading_ahead: '{where} is {revision}, later than the property’s own revision {latest}. Correct one of them.',
  has_visits: '{where} has visits on record, so it stays. Set its condition to abandoned instead.',
  fact_points_nowhere: '{where} belongs to “{id}”, which is not on record. Send that first.',
  no_column:
    'The first line has no column “{column}”. Name the columns terminal and reading; to, test and at where they are needed.',
  unknown_column: 'The column “{column}” is not known. Use terminal, reading, to, test and at; take others out.',
  too_many_columns:
    '{where} has more entries than the first line has columns. Put figures with a decimal comma in quotes, or separate by semicolons.',
  reading_not_volts: '{where}: “{text}” is no figure of volts. Write it as 26.4, up to 300.',
  bad_moment: '{where}: “{text}” is no moment. Write it as 2026-04-11T09:05:00Z, or leave it empty.',
  no_such_terminal:
    '{where}: there is no terminal “{terminal}” on this property. Write it as on the door, such as A:3.',
  reading_empty:
    '{where} is empty. Write the ohms, or OL for open; leave the whole line out where nothing was measured.',
  reading_not_a_figure: '{where}: “{text}” is not a reading. Write ohms as 34.6, 1.2k or 0.5M, or OL for open.',
  reading_over_range: '{where}: “{text}” is over the meter’s highest range, {highest}. Write OL, or correct the range.',
  reading_mark_or_figure: '{where}: a bare 1 may be the open mark of a meter or one ohm. Write OL, or 1.0.',
  no_such_joint:
    '{where}: there is no joint “{written}” on this property. Name it by a coil’s lead in it, such as V3.a.',
  no_such_valve: '{where}: there is no valve “{written}” on this property. Write its tag, such as V3.',
  two_controllers: 'The readings are of more than one controller. Name the one to hunt on with --controller.',
  nothing_to_hunt:
    'Controller {tag} has no common terminal, so nothing can be measured there. Put its common on record first.',
  no_such_controller: '{where} names the controller “{tag}”, which is not on this property. Use one of: {options}.',
  no_readings: 'No readings were given. Name a CSV file with the columns terminal and reading.',
  cannot_read: 'The file {file} cannot be read. Check its name and that you may read it.',
  bad_flag: '{where} is not a flag, or its value is missing. The flags are listed in docs/shell.md.',
  empty_list: 'The list is empty. Write a line for each station, or paste one.',
  station_twice: '{where} lists station {station} a second time. List each once.',
  not_a_length: '{where}: “{text}” is no length. Write it as 46, 46 m or 150 ft.',
  not_a_size: '{where}: “{text}” is no conductor size. Write it as 18 AWG or 1.5 mm².',
  no_box_yet: '{where}: a distance belongs to a box. Write the box first.',
  no_boxes: '{where}: write the boxes that the run passes, as B1 30, B2 55.',
  not_warmer: '{where}: “{text}” is no difference of temperature. Write kelvins from -40 to 60.',
  not_within: '{where}: write a number from {low} to {high}.',
  no_such_stop: '{where} names “{id}”, which is no stop of this cable. Name one of its stops.',
  jumper_leaves_box:
    '{where}: a jumper lies within one box. Give both of its stops the same place, or call it another kind of cable.',
  bad_fault:
    "{where}: “{text}” is no fault of this property. Write it as open K1/white{'@'}B4, series K1/red{'@'}A 12, touch K1/red/white{'@'}B2, joint-open V3.a, joint-series V5.a 1.8, coil-open V3, coil-part V18 0.45, swap A:2 A:3 or supply A; all of them are in docs/shell.md.",
  no_core_left:
    '{cable} has no core left for {valve}. Remake a broken one, lay a new cable, or feed two valves from one core with a sequencer.',
  no_connector_holds:
    '{where}: no connector that is carried holds {count} conductors up to {thickest_mm2} mm² at {at}. Carry a larger kind (Plan, Wiring), or bring thick ones down by a pigtail.',
  connector_too_many:
    'A {connector}: it would hold {is} conductors, and takes {limit}. Chain several with short jumpers, or use a larger kind.',
  connector_too_few: 'A {connector}: it would hold {is} conductor, and needs {limit}. Cap it, or join more.',
  connector_too_thick:
    'A {connector}: a conductor of {is} mm² does not fit; it takes up to {limit} mm². Use a nut with a gel tube, or a pigtail.',
  connector_too_thin:
    'A {connector}: a conductor of {is} mm² is too thin; it grips from {limit} mm². Use a smaller kind.',
  connector_too_full:
    'A {connector}: the conductors are {is} mm² together, and it holds {limit} mm². Use a larger kind, or chain several.',
  both_leads:
    '{where}: both leads of {valve} would be in one joint. Join one to the common, the other to its station’s core.',
  dc_coil_on_ac:
    '{where}: {valve} would be a DC latching coil on the AC output {terminal}, which burns or does nothing. Choose an AC coil.',
  bay_skipped: 'The module in bay {bay} is not seen: bay {empty} before it is empty. Move it there.',
  stations_after_decoders:
    'The station module in bay {bay} comes after the decoder module in bay {decoders}. Put station modules first.',
  too_many_stations:
    'Controller {controller} has {count} stations on record, screws and numbers together, and runs {most} in all.',
  terminals_miscounted:
    'Controller {controller} has {counted} stations by its base and modules, but {onRecord} station terminals are on record. Count the modules again, or bring the terminals to the count.',
  decoders_make_hybrid:
    'Controller {controller} has a decoder module but is on record as conventional. Set its kind to hybrid.',
  master_over_limit:
    '{terminal} would hold {sum_A} A ({devices}), over its limit of {limit_A} A. Use a relay coil of lower draw, or give the master valve a relay of its own.',
  sensor_open:
    'The sensor terminals of {controller} are open: no station will run. Put the link in, or wire the sensor in its place.',
  sensor_rest_unknown:
    'It is not on record how the sensor of {controller} stands in the dry. Read its sheet, and set the controller to match.',
  too_many_points:
    'Controller {controller} serves at most {most} points of connection. Put the next on another controller.',
  no_path_here:
    '{point} has a device declared on the path, but controller {controller} has none. Declare it direct, or set the controller’s kind.',
  path_jumper:
    '{point}: a decoder drives the master valve or pump. Some controllers then need a jumper between power module and decoder module; look at its sheet.',
  terminal_shared: '{point} and {other} use one master terminal. Give each a terminal of its own.',
  no_origin:
    'The property has no latitude and longitude, and the format has nothing else. Set the origin under the map first.',
  not_drawn: '{where}: {cable} is not drawn from the cabinet on. Put its cabinet and first box on the map.',
  place_in_use: 'At {at} something stands, ends or passes, so it stays. Take that away first.',
  cable_in_use: '{cable} is joined to something, so it stays. Take its joints apart first.',
  passes_no_boxes:
    '{where}: the line passes fewer than two boxes. Begin and end it on one, and let it touch those between.',
  not_geojson:
    'This is no GeoJSON: its “type” is neither FeatureCollection nor Feature. Save it as GeoJSON and try again.',
  not_xml: 'The file stops being readable at line {line}. Save it again as GPX 1.1.',
  not_gpx: 'This is no GPX file: it does not begin with a gpx element. Save it as GPX 1.1.',
  other_bytes: 'The picture’s bytes are not those of its address. Send it again.',
  no_such_picture: 'This picture is not here. It may wait on the device that it was chosen on.',
  bad_picture_address: '{where} is not the SHA-256 of a picture.',
  not_a_picture: 'The file is no picture that can be shown. Use PNG, JPEG or WebP up to {limit} MB.',
  not_a_position: '{where}: “{text}” is no latitude and longitude. Write them in degrees: -47.5, -120.25.',
  not_a_run:
    '{where} names {cable}, which brings no common out from this controller. Name a cable that does, or a new one.',
  common_is_no_output: '{where} names a common terminal. Name the terminals of the stations that run.',
  usage:
    'Say what to do: thread check, expect, judge, solve, deck, size, material, stations, wiring, simulate, procedures, path, locate or hunt, then FILE, for judge and hunt also readings.csv; or thread cores --n 7, or thread trace readings.csv. More in docs/shell.md.',
  too_large: 'What was sent is larger than 5 MB, the most that is read at once. Send less at a time.',
  file_too_large: 'The file is larger than {limit} MB, the most that is read. Leave out its pictures or its past.',
  piece_too_large:
    'A part of the file is larger than {limit} MB, the most that is read at once. Check whether it is the right file.',
  file_only: 'Send the property’s file as application/json, or its zip as application/zip.',
  not_our_zip: 'The zip has no property in it, or is broken. Open one that was saved here, or the .json itself.',
  abandoned: 'The file was not taken in: it was stopped. Nothing of it was kept.',
  no_such_intake: 'No file is being taken in under this address.',
  archive_first: 'A property is archived before it is deleted. Archive it, keep its file, then delete it.',
  pictures_full:
    'The property’s pictures take up all the room they may. Take one off the map that is no longer needed.',
  unreadable_record:
    'What is on record of this property cannot be read. Nothing of it is lost: save its file, and open the file again once it is mended.',
  newer_record:
    '{where} was written by version {version}; this one reads up to {latest}. Start the newer version again.',
  too_far_behind:
    'This change was made on change {base} and the property is at {latest}. Reload the page, then make it again.',
  json_only: 'Send JSON with the content type application/json.',
  bad_address: '{where} is not the id of a property. Open the property from the list.',
  site_too_large:
    'The property would hold {records} records, more than the {most} that can be worked with. Divide it into properties of their own.',
  too_many_drawn:
    'The file has {count} points, more than the {most} that are taken in at once. Leave out what is not this property.',
  already_here: 'This property is here already. Open it, or import the file as a copy.',
  wrong_property: '{where} names another property than the address. Reload the page.',
  newer_client: 'The page and the server are of different versions. Reload the page; what was not sent is kept.',
  no_such_address: 'There is nothing at this address.',
  base_ahead: '{where} is later than the property’s own revision. Reload the page.',
  no_such_revision: 'The record never had this revision. Choose one from the list of changes.',
  no_such_batch: 'The change to take back is not on record. Reload the page.',
  id_taken: '{where} was used for something else before. Send it under a new id.',
  live_only: 'This address tells what happens as it happens: it is asked with “accept: text/event-stream”.',
  too_many_listen:
    'Too many pages listen at once. This one goes on, and sees what others write when it is opened anew.',
  database_down: 'The records cannot be reached just now. Nothing was lost; it is sent again by itself.',
  foreign_page: 'This request came from another page, so it was refused. Open Field Thread at its own address.',
  no_such_thing:
    '{where}: nothing on this property has the tag “{tag}”. Write a controller, a terminal such as A:3, a box, a valve or a cable.',
  unknown_trace_column:
    'The column “{column}” is not known. Use section, along_m, across_m, height_m, tilt_deg, mode, gain and reading; take others out.',
  no_readings_there: 'There is no reading in the file. Write one a line, below the line of headings.',
  not_a_figure: '{where}: “{text}” is no figure from {low} to {high}. Correct it.',
  too_little_traced:
    '{where}: no stretch between two boxes was crossed at two places yet. Take readings across the line there first.',
  which_box: '{where}: no box of this property has the tag “{tag}”. Name one that has, such as --box B10.',
  nothing_speaks:
    '{where}: nothing on record speaks of where {tag} is. Draw it on the map, or walk to it with the wand.',
  how_many_cores: '{where}: say how many cores there are, from 2 to 400, such as --n 7; or give the file of a cable.',
  cable_not_json: 'The cable’s file cannot be read as JSON. Save it again and use that copy.',
  cable_ends:
    '{where}: every end from 1 to {count} stands in one group; end {end} is missing, there twice, or not there at all.',
  procedure_name_taken:
    '{where}: “{id}” is the name of a procedure that comes with Field Thread. Give yours a name of its own.',
  procedure_unknown: '{where}: there is no procedure “{id}” to be a copy of. Name one of ours, or null.',
  procedure_elsewhere:
    '{where}: a copy of {id} is done on the same things as {id}. Set “on” and “suits” as they are there.',
  procedure_untitled: '{where}: a procedure of yours needs a title. Add “title”.',
  procedure_not_json: 'The procedure’s file cannot be read as JSON. Save it again from Field Thread and use that copy.',
  not_a_workbook: '{where}: this is no XLSX workbook that can be read. Save it again as XLSX, or as CSV.',
  company_changed_since:
    'This was changed by somebody else of the company meanwhile. Look at what is there now, then change it again.',
  no_company_record: '{where} is nothing that a company keeps. Ask for prices, views or tuning.',
  procedure_changed_since:
    'Somebody else kept this procedure since you began, or took it off. Choose which of the two is to stand.',
  procedures_full: 'There are {most} procedures of yours already. Take one off that nobody follows any more.',
  procedure_other_name: '{where} is another name than the address has. Send the procedure under its own name.',
  step_without_words: '{where}: the step “{step}” is yours and says nothing. Add “says”.',
  step_changed:
    '{where}: the step “{step}” asks for something else than ours. Change its words only, or make it a step of your own.',
  step_branch_nowhere:
    '{where}: the step “{step}” depends on “{other}”, which does not come before it. Put that step first, or take the condition out.',
  step_gone: '{where}: the step “{step}” is gone; it holds a caution or a hold of ours. Put it back.',
  step_moved: '{where}: the step “{step}” stands in another order than ours. Only steps that float may be moved.',
  hold_gone: '{where}: the step “{step}” is a hold of ours. Set “hold” to true again.',
  caution_gone: '{where}: the step “{step}” has lost a caution of ours. Put it back under “cautions”.',
  unexpected:
    'Something went wrong that should not. What was asked for may not be done; try again, and report it if it stays.',
} satisfies Record<
  Exclude<
    RefusalCode,
    | keyof typeof coreEn.refusal
    | keyof typeof pathRefusalsEn
    | keyof typeof scheduleRefusalsEn
    | keyof typeof quoteRefusalsEn
  >,
  string
>
