import { getOrThrow, type ControllerId, type Site } from '../site'
import { gridStations, minutesText } from './edit'
import { programsOf, type RecordedProgram } from './on-record'
import { stationTag } from './station-tag'

/** What stands on the door beside the wiring: programs side by side, and the minutes of every station in each. */
export interface DoorSheet {
  readonly property: string
  readonly contractor: string
  readonly controller: { readonly tag: string; readonly name: string }
  readonly programs: readonly Pick<RecordedProgram, 'name' | 'starts_s' | 'days' | 'seasonal_pct'>[]
  readonly lines: readonly { readonly tag: string; readonly name: string; readonly minutes: readonly string[] }[]
  readonly window_s: { readonly opens: number; readonly closes: number } | null
}

/** The sheet of a controller; null where it has no program. */
export function doorSheet(site: Site, controller: ControllerId): DoorSheet | null {
  const programs = programsOf(site, controller)
  if (programs.length === 0) return null
  const { tag, name, scheduling } = getOrThrow(site.controllers, controller)
  return {
    property: site.about.name,
    contractor: site.about.contractor,
    controller: { tag, name },
    programs,
    lines: gridStations(site, controller).map(({ station, name: called }) => ({
      tag: stationTag(site, controller, station),
      name: called,
      minutes: programs.map((p) => minutesText(p, station)),
    })),
    window_s: scheduling.window_s,
  }
}
