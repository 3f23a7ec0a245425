import { area_mm2, type Gauge } from '../quantity'
import { gaugeOf, getOrThrow, UNKNOWN_GAUGE, type End, type Site } from '../site'

/** What can be seen of an end in its box. */
export interface Seen {
  readonly end: End
  /** Where it comes from: a cable's tag, a device's tag, a terminal as on the door. */
  readonly from: string
  /** Which way a core goes: to the controller's side of the jacket (it arrives) or on. */
  readonly way: 'arrives' | 'leaves' | 'device' | 'terminal' | 'earth' | 'jumper'
  readonly colour: string | null
  readonly gauge: Gauge | null
  /** Copper, mm²; the usual size where none is on record. */
  readonly area_mm2: number
}

/** Leads of a coil: stranded, as thick as the thinner of the usual cable cores (18 AWG). */
const DEVICE_LEAD_mm2 = area_mm2({ awg: 18 })

/** An end as it looks in its box: a colour seen at this very stop wins over the core's own. */
export function seenOf(site: Site, end: End): Seen {
  switch (end.kind) {
    case 'earth':
      return { end, from: '', way: 'earth', colour: null, gauge: null, area_mm2: area_mm2({ awg: 6 }) }
    case 'terminal': {
      const controller = getOrThrow(site.controllers, end.controller)
      return {
        end,
        from: `${controller.tag}:${getOrThrow(controller.terminals, end.terminal).tag}`,
        way: 'terminal',
        colour: null,
        gauge: null,
        area_mm2: 0,
      }
    }
    case 'port': {
      const device = getOrThrow(site.devices, end.device)
      return {
        end,
        from: device.tag ?? (device.name || end.device),
        way: 'device',
        colour: device.leads[end.port] ?? null,
        gauge: null,
        area_mm2: DEVICE_LEAD_mm2,
      }
    }
    case 'core': {
      const cable = getOrThrow(site.cables, end.cable)
      const core = getOrThrow(cable.cores, end.core)
      const gauge = gaugeOf(cable, core)
      return {
        end,
        from: cable.tag ?? (cable.name || end.cable),
        way: cable.kind === 'jumper' ? 'jumper' : end.side,
        colour: core.colourAt[end.stop] ?? core.colour?.value ?? null,
        gauge,
        area_mm2: area_mm2(gauge ?? UNKNOWN_GAUGE[site.settings.market].likely),
      }
    }
  }
}
