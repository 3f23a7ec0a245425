import { HAZARDS, type Hazard } from '../record'
import { SHIPPED } from './index'

/** Where each hazard is met, by the procedures’ own names; a step that is missing here or there is a mistake. */
const MET: Readonly<Record<Hazard, readonly string[]>> = {
  power: [
    ...['gel_crimp.power', 'nut_and_tube.power', 'nut_and_tube.off_again', 'filled_nut.power', 'solder_sleeve.power'],
    ...['solder_sleeve.off_again', 'remake.power', 'spare_cores.box', 'new_box.common', 'coil_change.box'],
    ...['coil_change.joints', 'will_not_shut.lead', 'under_pressure.wiring', 'land_lead.power', 'module.rail'],
    ...['sensor.power', 'pump_relay.power', 'remote_port.power', 'change_controller.power', 'commission.leads_off'],
    ...['season_start.leads_off', 'hook_up.power', 'pack_up.leads_back', 'two_people.unused', 'sequencer.lead_off'],
    ...['convert.power', 'spare_swap.power', 'insulation.off'],
  ],
  mains: [
    ...['arrive.photo', 'land_lead.power', 'module.rail', 'sensor.power', 'pump_relay.starter', 'remote_port.power'],
    ...['change_controller.power', 'change_controller.dead', 'change_controller.mains', 'change_controller.power_on'],
    ...['commission.supply', 'commission.leads_off', 'season_start.supply', 'season_start.leads_off', 'hook_up.power'],
    ...['convert.power', 'convert.land', 'spare_swap.power', 'insulation.off'],
  ],
  pump: [
    ...['pump_relay.starter', 'pump_relay.coil', 'pump_relay.lifted', 'commission.relay', 'season_start.relay'],
    'wet_check.relay',
  ],
  pressure: [
    ...['new_box.leak', 'new_box.leak_again', 'new_box.leak_twice', 'seals.leak', 'coil_change.prove_water'],
    ...['coil_change.old_off', 'dc_to_ac.isolate', 'dc_to_ac.change', 'will_not_shut.bleed', 'will_not_shut.isolate'],
    ...['will_not_shut.grit', 'click_no_water.passage', 'under_pressure.supply', 'under_pressure.leak'],
    'season_start.water_on',
  ],
  eyes: [
    ...['gel_crimp.cut', 'nut_and_tube.strip', 'filled_nut.strip', 'solder_sleeve.strip', 'remake.bright'],
    ...['new_box.leak', 'seals.leak', 'coil_change.old_off', 'dc_to_ac.isolate', 'will_not_shut.grit'],
    ...['click_no_water.passage', 'under_pressure.oil', 'under_pressure.leak', 'season_start.water_on', 'arrestor.rod'],
  ],
  animals: [
    ...['leave.boxes', 'gel_crimp.power', 'nut_and_tube.power', 'filled_nut.power', 'solder_sleeve.power'],
    ...['remake.power', 'spare_cores.box', 'raise_box.lid', 'coil_change.box', 'will_not_shut.bleed'],
    ...['click_no_water.flow', 'under_pressure.supply', 'commission.at_box', 'commission.zone'],
    ...['season_start.flow_controls', 'season_start.at_box', 'season_start.zone', 'wet_check.boxes', 'hook_up.walk'],
    ...['sequencer.lead_off', 'sequencer_sync.never', 'decoder.box', 'convert.groups', 'spare_swap.box'],
  ],
  lightning: [
    ...['arrive.weather', 'hook_up.clips', 'decoder.box', 'arrestor.located', 'convert.power', 'insulation.nobody'],
  ],
  buried: [
    ...['new_box.located', 'new_box.dig', 'raise_box.probe', 'raise_box.sod', 'hook_up.stake', 'arrestor.located'],
    'arrestor.rod',
  ],
  transmitter: [
    ...['hook_up.off', 'hook_up.clips', 'hook_up.on', 'pack_up.off', 'two_people.tone_off', 'two_people.call'],
  ],
  traffic: ['new_box.located', 'raise_box.probe', 'wet_check.zone', 'hook_up.walk', 'sequencer_sync.turn_1'],
  trip: ['leave.boxes', 'new_box.dig', 'new_box.lid', 'raise_box.sod', 'raise_box.level', 'wet_check.boxes'],
  tester: ['coil_change.proved'],
  heat: ['solder_sleeve.solder', 'solder_sleeve.shrink'],
  insulation: ['insulation.off', 'insulation.nobody', 'insulation.measure', 'insulation.discharge'],
}

/** What must not be passed, procedure by procedure. */
const HOLDS: Readonly<Record<string, readonly string[]>> = {
  arrive: ['pause'],
  leave: ['dial'],
  gel_crimp: ['power', 'home'],
  nut_and_tube: ['power', 'test'],
  filled_nut: ['power'],
  solder_sleeve: ['power', 'test'],
  remake: ['power', 'bright', 'kind'],
  spare_cores: [],
  new_box: ['located', 'leak', 'leak_again', 'leak_twice', 'test'],
  raise_box: ['lid'],
  seals: ['leak'],
  coil_change: ['proved', 'prove_water', 'ring', 'flow_open'],
  dc_to_ac: ['isolate'],
  will_not_shut: ['isolate'],
  click_no_water: ['passage'],
  under_pressure: ['supply', 'leak'],
  land_lead: ['power'],
  module: ['rail', 'count'],
  sensor: ['power', 'press'],
  pump_relay: ['starter', 'power'],
  remote_port: ['power'],
  change_controller: ['pause', 'tags', 'power', 'dead', 'dial'],
  commission: ['pause', 'leads_off', 'ohms', 'leads_on', 'relay', 'accept', 'dial'],
  season_start: ['pause', 'leads_off', 'ohms', 'leads_on', 'relay', 'dial'],
  wet_check: ['program', 'relay', 'restored'],
  hook_up: ['off', 'power', 'leads', 'dead_volts', 'dead_earth', 'clips'],
  pack_up: ['off'],
  two_people: ['unused', 'tone_off', 'off'],
  sequencer: ['lead_off', 'schedule', 'through'],
  sequencer_sync: ['program', 'restored'],
  decoder: ['duplicate', 'lamp'],
  arrestor: ['located', 'reading'],
  convert: ['power', 'through', 'to_each_other', 'to_earth', 'legs_open', 'legs_through'],
  spare_swap: ['power', 'proved'],
  insulation: ['off', 'lifted', 'nobody', 'discharge'],
}

test('every caution stands at the steps where its hazard is, and at no other', () => {
  const found = Object.fromEntries(
    HAZARDS.map((hazard) => [
      hazard,
      SHIPPED.flatMap((p) => p.steps.filter((s) => s.cautions.includes(hazard)).map((s) => `${p.id}.${s.id}`)),
    ]),
  )
  expect(found).toEqual(MET)
})

test('what must not be passed is a hold, in every procedure', () => {
  expect(Object.fromEntries(SHIPPED.map((p) => [p.id, p.steps.filter((s) => s.hold).map((s) => s.id)]))).toEqual(HOLDS)
})

test('a branch hangs on an answer that a step before it can have', () => {
  for (const { id, steps } of SHIPPED)
    steps.forEach((step, i) => {
      for (const { step: other, is } of step.when) {
        const asked = steps.slice(0, i).find((s) => s.id === other)
        const options = asked?.does.kind === 'choice' ? asked.does.options.map((o) => o.id) : []
        expect([id, step.id, other, is.every((o) => options.includes(o))]).toEqual([id, step.id, other, true])
      }
    })
})
