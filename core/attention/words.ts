import type { Facts } from '../record'
import { sightingsIn } from '../sightings'
import { entries, type Site } from '../site'

/** Longer texts are searched by their beginning. */
const MOST_LETTERS = 60_000

/**
 * What a property is looked for by, in small letters: its name, controllers, boxes, stations and what was seen there.
 */
export function wordsOf(site: Site, facts: Facts): string {
  const texts = [
    site.about.name,
    site.about.contractor,
    ...entries(site.controllers).flatMap(([, c]) => [c.tag, c.name]),
    ...entries(site.places).flatMap(([, p]) => [p.tag, p.name]),
    ...entries(site.stations).flatMap(([, s]) => [s.name]),
    ...entries(site.temporaryStates).map(([, t]) => t.what),
    ...sightingsIn(facts).flatMap(({ seen }) => [seen.what.replaceAll('_', ' '), seen.note]),
  ]
  return [...new Set(texts.filter((text) => text !== ''))].join('\n').slice(0, MOST_LETTERS).toLowerCase()
}
