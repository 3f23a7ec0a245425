import { answerOf, closings, conditionsFor, engineOf, poweredOf, runningOf } from '../circuit'
import { outputsOn, pathEngine, worstFor } from '../path'
import { getOrThrow, pathOf, type ControllerId, type DeviceId, type Site } from '../site'
import type { StationOn } from './station'

/** What the wiring gives while some stations run, the last of them just starting. */
export interface VoltsThen {
  readonly load_VA: number
  readonly rating_VA: number | null
  /** Coils and decoders that are on, each with what it gets and needs. */
  readonly at: readonly {
    readonly device: DeviceId
    readonly volt_V: number
    readonly minimum_V: number
    readonly enough: boolean
  }[]
}

/** A coil at its sheet’s temperature draws most: wire and transformer that bear that bear less too. */
const SHEET_C = 20

/**
 * The circuit engine’s answer for stations on at once, under the worst that the property is sized for; screws and the
 * path each by their own source.
 */
export function voltsAt(site: Site, controller: ControllerId, on: readonly StationOn[]): VoltsThen {
  const screws = on.filter((s) => s.address === null).map(({ terminal }) => ({ controller, terminal }))
  const path = pathVoltsAt(site, controller, on)
  const running = runningOf(site, screws)
  if (screws.length === 0 || !running.ok) return { load_VA: 0, rating_VA: null, at: path }
  const { sizing, mains_Hz } = site.settings
  const powered = poweredOf(
    site,
    conditionsFor(running.value, {
      climate: { ground_C: sizing.hottest_C, coil_C: SHEET_C },
      frequency_Hz: mains_Hz,
      phase: 'safe',
      mains_ratio: 1 - sizing.mainsLow_ratio,
      wire: 'maximum',
    }),
    controller,
  )
  const engine = engineOf(powered)
  const answer = answerOf(engine, engine.solve(closings(powered, running.value.live)))
  const supply = answer.supplies.find((s) => s.controller === controller)
  return {
    load_VA: supply?.load_VA ?? 0,
    rating_VA: getOrThrow(site.controllers, controller).transformer?.rating_VA ?? null,
    at: [...answer.coils.filter((c) => running.value.faces.has(c.device)), ...path],
  }
}

function pathVoltsAt(site: Site, controller: ControllerId, on: readonly StationOn[]): VoltsThen['at'] {
  const path = pathOf(site, controller)
  const numbers = on.flatMap((s) => s.address ?? [])
  if (!path || numbers.length === 0) return []
  const made = pathEngine(site, path, 'constant_current', [], worstFor(site))
  if (!made.ok) return []
  const last = on.at(-1)!.address
  const state = outputsOn(site, path)
    .filter((o) => o.address !== null && numbers.includes(o.address))
    .map((output) => ({ output, face: output.address === last ? ('inrush' as const) : ('holding' as const) }))
  const { decoders, coils } = made.value.volts(state)
  return [
    ...decoders.map(({ decoder, ...rest }) => ({ device: decoder, ...rest })),
    ...coils.map(({ coil, ...rest }) => ({ device: coil, ...rest })),
  ]
}
