import { parseGauge, parseLength } from '../quantity'
import { accepted, parseWith, refusal, refused, type Outcome, type Refusal } from '../refusal'
import { bounded, entries, getOrThrow, type CableId, type Command, type ControllerId, type Site } from '../site'
import { tag as tagSchema } from '../site/ids'
import { commandsBetween } from './difference'
import { placeFor } from './list'
import { capLoose, reachBox, runsOf, setDistance, startRun, stopAt } from './run'
import { set, type Work } from './work'

/** A run in words: the boxes it passes in order, with their distance where it is known. */
export interface WrittenWay {
  readonly box: string
  readonly at_m: number | null
}

/** Reads `B1 30, B2 55 m, B3`: boxes in order, each with its distance from the controller or none. */
export function readWay(text: string, unit: 'm' | 'ft'): Outcome<WrittenWay[]> {
  const wrong: Refusal[] = []
  const stops = text
    .split(/[,;\n]+/)
    .map((s) => s.trim())
    .filter((s) => s !== '')
    .map((s): WrittenWay => {
      const [box = '', ...rest] = s.split(/\s+/)
      const length = rest.join(' ')
      const at_m = length === '' ? null : parseLength(length, unit)
      if (length !== '' && at_m === null) wrong.push(refusal('not_a_length', [box], { text: length }))
      const parsed = parseWith(tagSchema, box, ['box'])
      if (!parsed.ok) wrong.push(...parsed.refusals)
      return { box, at_m }
    })
  let reached = 0
  for (const { box, at_m } of stops) {
    if (at_m !== null && at_m < reached) wrong.push(refusal('stop_before', [box], { at_m, reached_m: reached }))
    reached = Math.max(reached, at_m ?? 0)
  }
  if (stops.length === 0) wrong.push(refusal('no_boxes', ['boxes']))
  return wrong.length > 0 ? refused(...wrong) : accepted(stops)
}

/** A run as `readWay` takes it. */
export function wayText(site: Site, cable: CableId, show: (at_m: number) => string): string {
  return getOrThrow(site.cables, cable)
    .stops.slice(1)
    .map((s) => {
      const at = bounded(s.at_m)
      return at ? `${getOrThrow(site.places, s.place).tag} ${show(at.value)}` : getOrThrow(site.places, s.place).tag
    })
    .join(', ')
}

/**
 * The commands that bring a run to the boxes written: new ones taken in, distances set. Boxes left out stay; they may
 * hold valves.
 */
export function wayCommands(site: Site, cable: CableId, way: readonly WrittenWay[]): Command[] {
  const work: Work = { site }
  const common =
    entries(site.controllers)
      .flatMap(([c]) => runsOf(site, c))
      .find((r) => r.cable === cable)?.common ?? null
  for (const { box, at_m } of way) {
    const place = placeFor(work, box)
    if (stopAt(getOrThrow(work.site.cables, cable), place) >= 0) setDistance(work, cable, place, at_m)
    else reachBox(work, cable, common, place, at_m)
  }
  capLoose(work, cable)
  return commandsBetween(site, work.site)
}

/**
 * The commands that lay a new run from a controller: a jacket for everything, or a single common with leads beside
 * it.
 */
export function newRunCommands(
  site: Site,
  controller: ControllerId,
  tag: string,
  kind: 'multicore' | 'single',
  size: string,
  way: readonly WrittenWay[],
): Outcome<Command[]> {
  const named = parseWith(tagSchema, tag.trim(), ['tag'])
  if (!named.ok) return named
  if (Object.values(site.cables).some((c) => c.tag === named.value))
    return refused(refusal('tag_twice', ['tag'], { tag: named.value }))
  const gauge = size.trim() === '' ? null : parseGauge(size, site.settings.market)
  if (size.trim() !== '' && gauge === null) return refused(refusal('not_a_size', ['size'], { text: size }))
  const work: Work = { site }
  const [first, ...rest] = way
  const run = startRun(work, controller, named.value, kind, gauge, placeFor(work, first!.box), first!.at_m)
  for (const { box, at_m } of rest) reachBox(work, run.cable, run.common, placeFor(work, box), at_m)
  capLoose(work, run.cable)
  return accepted(commandsBetween(site, work.site))
}

/** The commands that change what a run is called or how much warmer it lies. */
export function runCommands(
  site: Site,
  cable: CableId,
  field: 'tag' | 'warmer_K',
  written: string,
): Outcome<Command[]> {
  const work: Work = { site }
  if (field === 'tag') {
    const named = parseWith(tagSchema, written.trim(), ['tag'])
    if (!named.ok) return named
    if (entries(site.cables).some(([id, c]) => id !== cable && c.tag === named.value))
      return refused(refusal('tag_twice', ['tag'], { tag: named.value }))
    set(work, 'cables', cable, 'tag', named.value)
  } else {
    const warmer = written.trim() === '' ? 0 : Number(written.replace(',', '.'))
    if (!(warmer >= -40 && warmer <= 60)) return refused(refusal('not_warmer', ['warmer'], { text: written }))
    set(work, 'cables', cable, 'warmer_K', warmer)
  }
  return accepted(commandsBetween(site, work.site))
}
