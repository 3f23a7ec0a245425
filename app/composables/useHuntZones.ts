import { computed } from 'vue'
import {
  byTag,
  deviceName,
  getOrThrow,
  stationAt,
  terminalEnd,
  terminalsInOrder,
  type ControllerId,
  type DeviceId,
  type End,
  type TerminalId,
} from '../../core/site'
import type { FieldTest, Reading } from '../../core/record'
import { sequencersOf } from '../../core/sequencer'
import { useProperty } from '../stores/property'
import type { HuntReading } from './useHunt'

/** A zone of the controller that is hunted on; `dry`: what was last told of it, null where nothing was. */
export interface HuntZone {
  readonly terminal: TerminalId
  readonly tag: string
  readonly name: string
  readonly dry: boolean | null
  /** The sequencer that its valve is behind, by name; null where none is between. */
  readonly sequencer: string | null
}

/** The zones and coils of a hunt's controller by the names people know, and what was told of each zone. */
export function useHuntZones(
  controllerOf: () => ControllerId | null,
  readings: () => readonly HuntReading[],
  /** Whether a reading still counts: of what a repair could have touched, what was told before says nothing of now. */
  counts: (reading: Reading) => boolean,
) {
  const property = useProperty()
  const site = computed(() => property.site!)
  const tagOf = (terminal: string): string => {
    const controller = controllerOf()
    return controller
      ? getOrThrow(getOrThrow(site.value.controllers, controller).terminals, terminal as TerminalId).tag
      : terminal
  }
  const stationOf = (terminal: TerminalId) => {
    const controller = controllerOf()
    return controller === null ? undefined : stationAt(site.value, { controller, terminal })?.[1]
  }
  const nameOf = (terminal: string) => stationOf(terminal as TerminalId)?.name ?? ''
  const waterTest = (terminal: TerminalId): FieldTest => ({
    kind: 'water',
    at: terminalEnd(controllerOf()!, terminal) as Extract<End, { kind: 'terminal' }>,
  })
  const sequencers = computed(() => {
    const controller = controllerOf()
    return controller === null ? [] : sequencersOf(site.value, controller)
  })
  const zones = computed((): HuntZone[] => {
    const controller = controllerOf()
    return controller === null
      ? []
      : terminalsInOrder(site.value, controller).flatMap((terminal) => {
          const station = stationOf(terminal)
          if (!station) return []
          const told = readings().findLast(
            ({ reading }) => reading.test.kind === 'water' && reading.test.at.terminal === terminal && counts(reading),
          )?.reading.value
          const dry = told?.kind === 'waters' ? !station.valves.some((v) => told.valves.includes(v)) : null
          const sequencer = sequencers.value.find((q) => q.fedBy.includes(terminal))
          return [
            {
              terminal,
              tag: tagOf(terminal),
              name: station.name,
              dry,
              sequencer: sequencer ? deviceName(site.value, sequencer.device) : null,
            },
          ]
        })
  })
  /** Every coil of the controller by the zone's name, for what waters and for tests in boxes. */
  const coils = computed((): { device: DeviceId; name: string }[] => [
    ...Object.values(site.value.stations)
      .filter((s) => s.controller === controllerOf())
      .sort((a, b) => byTag(tagOf(a.terminal), tagOf(b.terminal)))
      .flatMap((s) => s.valves.map((device) => ({ device, name: s.name }))),
    ...Object.values(site.value.pointsOfConnection)
      .filter((p) => p.terminal?.controller === controllerOf())
      .flatMap((p) =>
        p.masterValve
          ? [{ device: p.masterValve, name: getOrThrow(site.value.devices, p.masterValve).name || p.name }]
          : [],
      ),
  ])
  /** The valves of a zone, as its water is told. */
  const valvesOf = (terminal: TerminalId): DeviceId[] => [...(stationOf(terminal)?.valves ?? [])]
  /** Faults that a simulated property can hide, by names of this one. */
  const practice = computed(() =>
    coils.value.slice(0, MOST_PRACTICE).flatMap(({ device }) => {
      const tag = getOrThrow(site.value.devices, device).tag ?? device
      return [
        `coil-open ${tag}`,
        `joint-open ${tag}.a`,
        `joint-series ${tag}.b 40`,
        `coil-part ${tag} 0.4`,
        `stuck-shut ${tag}`,
      ]
    }),
  )
  return { zones, coils, practice, nameOf, tagOf, waterTest, valvesOf }
}

/** Coils whose faults are offered for practice. */
const MOST_PRACTICE = 40
