import type { Spot } from '../../circuit'
import type { RunPart } from '../../record'
import { getOrThrow, stopPositions_m, type DeviceId, type Link } from '../../site'
import type { HuntContext } from '../context'
import type { OddsBasis } from '../odds'
import { gone, middles, seriesCells, type Entry } from './cells'
import { leakCells, type LeakSizes } from './leaks'

/** Positions along a run, at the middles of as many equal parts. */
export const POSITIONS = 8

export interface Run {
  readonly where: RunPart
  /** Its ends' places in the cable's list of stops. */
  readonly from: number
  readonly to: number
  readonly elements: readonly number[]
  readonly common: boolean
  readonly length_m: number
  readonly suspect: boolean
}

/** Every core between two openings that hangs on the controller, with its stretches in order. */
export function conductorRunsOf(context: HuntContext): Run[] {
  const {
    site,
    meterState: { powered },
  } = context
  const runs: Run[] = []
  let open: { link: Extract<Link, { kind: 'stretch' }>; elements: number[] } | null = null
  const close = () => {
    if (!open) return
    const { link, elements } = open
    const last = powered.parts[elements.at(-1)!]!.of as Extract<Link, { kind: 'stretch' }>
    const cable = getOrThrow(site.cables, link.cable)
    const at = stopPositions_m(cable)
    const core = getOrThrow(cable.cores, link.core)
    const states = [
      cable.condition,
      core.condition,
      ...elements.map((e) => core.conditions[cable.stops[(powered.parts[e]!.of as typeof link).from]!.id]),
    ]
    runs.push({
      where: {
        kind: 'run',
        cable: link.cable,
        core: link.core,
        from: cable.stops[link.from]!.id,
        to: cable.stops[last.to]!.id,
      },
      from: link.from,
      to: last.to,
      elements,
      common: context.onCommon(link.a),
      length_m: Math.max(0.5, at[last.to]!.value - at[link.from]!.value),
      suspect: states.some((c) => c?.state === 'suspect'),
    })
    open = null
  }
  powered.parts.forEach(({ of }, element) => {
    if (of.kind !== 'stretch' || !context.within(element)) {
      close()
      return
    }
    const cable = getOrThrow(site.cables, of.cable)
    const goesOn =
      open !== null &&
      open.link.cable === of.cable &&
      open.link.core === of.core &&
      (powered.parts[open.elements.at(-1)!]!.of as typeof of).to === of.from &&
      !getOrThrow(cable.cores, of.core).cutAt.includes(cable.stops[of.from]!.id)
    if (goesOn) open!.elements.push(element)
    else {
      close()
      open = { link: of, elements: [element] }
    }
  })
  close()
  return runs
}

/** The element of a run in which a part of its way lies, and how far along that element. */
export function spotAlong(context: HuntContext, run: Run, along: number): Spot {
  const {
    site,
    meterState: { powered },
  } = context
  const at = stopPositions_m(getOrThrow(site.cables, run.where.cable))
  const here = at[run.from]!.value + along * (at[run.to]!.value - at[run.from]!.value)
  for (const element of run.elements) {
    const { from, to } = powered.parts[element]!.of as Extract<Link, { kind: 'stretch' }>
    const [a, b] = [at[from]!.value, at[to]!.value]
    if (here <= b || element === run.elements.at(-1))
      return { element, along: b > a ? Math.min(1, Math.max(0, (here - a) / (b - a))) : 0.5 }
  }
  throw new Error('spotAlong: a run without stretches')
}

export function runFaults(context: HuntContext, basis: OddsBasis, leaks: LeakSizes): Entry[] {
  return conductorRunsOf(context).flatMap((run): Entry[] => {
    const family = run.common ? 'common' : 'conductor'
    // The longest stretch stands for the run: the same current passes through all of it.
    const main = run.elements.reduce((best, e) =>
      context.meterState.powered.parts[e]!.z.re > context.meterState.powered.parts[best]!.z.re ? e : best,
    )
    const entry = {
      where: run.where,
      family,
      weight: run.length_m * (run.suspect ? basis.suspect : 1),
      elements: run.elements,
    } as const
    // Read through the nearer end: two positions tell all there is to be told.
    const leaking = middles(2).at.flatMap((along) => leakCells(leaks, spotAlong(context, run, along), along))
    return [
      { ...entry, cause: 'open', cells: [{ mods: gone(main) }] },
      { ...entry, cause: 'series', cells: seriesCells(main) },
      { ...entry, cause: 'leak', cells: leaking },
    ]
  })
}

export const devicesOn = (context: HuntContext, run: Run): DeviceId[] => {
  const { powered } = context.meterState
  const reached = context.terminals.find((t) =>
    context.walk(t).runs.some((r) => r.link === powered.parts[run.elements[0]!]!.of),
  )
  return reached === undefined ? [] : [...(context.hanging.get(reached)?.coils ?? [])]
}
