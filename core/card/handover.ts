import { terminalTest, type VerdictCode } from '../expect'
import { contradictionsOf, newestOf, pastOfTest } from '../history'
import { isOnRecord, placeOf, runOf, type Run } from '../procedure'
import { jobsInOrder, photosOf, type Shown } from '../record'
import { sightingsIn, type Standing } from '../sightings'
import {
  byTag,
  checkSite,
  entries,
  getOrThrow,
  type ControllerId,
  type Finding,
  type PlaceId,
  type Site,
} from '../site'
import { cabinetCard, type CabinetCard, type CardSources } from './cabinet-card'
import { jointList, type BoxJoints } from './joint-list'
import { planDrawing, type PlanDrawing } from './plan-drawing'

/** What is still open at a property, for whoever has it next. */
export type OpenPoint =
  | { readonly kind: 'temporary'; readonly what: string; readonly since: string }
  /** What was read last on a thread, and does not fit. */
  | {
      readonly kind: 'reading'
      readonly controller: string
      readonly label: string
      readonly name: string
      readonly verdict: VerdictCode
      readonly at: string
    }
  /** What the record says of itself. */
  | { readonly kind: 'record'; readonly finding: Finding }
  | { readonly kind: 'joints'; readonly box: string; readonly count: number }
  | { readonly kind: 'run'; readonly run: Run; readonly at: string }
  /** Something that somebody saw, and that is neither done nor declined. */
  | { readonly kind: 'sighting'; readonly standing: Standing }

/** Everything that goes over to the owner: the map, every door, what is joined where, photos, open points. */
export interface Handover {
  readonly property: string
  readonly contractor: string
  readonly map: PlanDrawing | null
  readonly cards: readonly CabinetCard[]
  readonly boxes: readonly BoxJoints[]
  readonly photos: readonly { readonly shown: Shown; readonly place: PlaceId | null; readonly tag: string | null }[]
  readonly open: readonly OpenPoint[]
}

export function handoverOf(site: Site, sources: CardSources): Handover {
  const controllers = entries(site.controllers).sort(([, a], [, b]) => byTag(a.tag, b.tag))
  const cards = controllers.map(([id]) => cabinetCard(site, id, sources))
  const boxes = jointList(site)
  const photos = photosOf(sources.facts).map((shown) => {
    const place = isOnRecord(site, shown.photo.on) ? placeOf(site, shown.photo.on) : null
    return { shown, place, tag: place && getOrThrow(site.places, place).tag }
  })
  return {
    property: site.about.name,
    contractor: site.about.contractor,
    map: planDrawing(site),
    cards,
    boxes,
    photos: photos.sort((a, b) => byTag(a.tag ?? '', b.tag ?? '') || a.shown.photo.at.localeCompare(b.shown.photo.at)),
    open: [
      ...temporaryOf(site),
      ...sightingsIn(sources.facts)
        .filter((s) => s.state !== 'done' && s.state !== 'declined' && isOnRecord(site, s.seen.on))
        .map((standing): OpenPoint => ({ kind: 'sighting', standing })),
      ...controllers.flatMap(([id], i) => misfitsOf(site, id, cards[i]!, sources)),
      ...checkSite(site)
        .filter((f) => f.weight !== 'gap')
        .map((finding): OpenPoint => ({ kind: 'record', finding })),
      ...boxes.flatMap(({ tag, joints }): OpenPoint[] => {
        const count = joints.filter((j) => j.made === null).length
        return count > 0 ? [{ kind: 'joints', box: tag, count }] : []
      }),
      ...jobsInOrder(sources.facts, 'procedure').flatMap((job): OpenPoint[] => {
        const run = runOf(site, sources.facts, job)
        return run && run.left > 0 ? [{ kind: 'run', run, at: sources.facts.jobs[job]!.at }] : []
      }),
    ],
  }
}

const temporaryOf = (site: Site): OpenPoint[] =>
  entries(site.temporaryStates)
    .map(([, { what, since }]) => ({ kind: 'temporary' as const, what, since }))
    .sort((a, b) => a.since.localeCompare(b.since))

/** Threads whose latest reading does not fit, but for those that something newer speaks against. */
function misfitsOf(
  site: Site,
  controller: ControllerId,
  { lines, controller: { tag } }: CabinetCard,
  { scene, sceneAt, past, facts }: CardSources,
): OpenPoint[] {
  const isContradicted = contradictionsOf(scene, controller, facts)
  return lines.flatMap(({ terminal, label, name, role }): OpenPoint[] => {
    const test = role === 'station' || role === 'master' ? terminalTest(site, controller, terminal) : null
    const newest = test && newestOf(scene, sceneAt, test, pastOfTest(past, test))
    if (!newest || newest.state === 'fits' || newest.state === 'none' || isContradicted(terminal, newest)) return []
    const { verdict, past: last } = newest
    return [{ kind: 'reading', controller: tag, label, name, verdict, at: last.reading.at }]
  })
}
