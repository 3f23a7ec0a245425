import { wrap, type Remote } from 'comlink'
import { outputsOn } from '../../core/path'
import type { PathRead } from '../../core/path-hunt'
import type { PathTest, PathTried, PathValue } from '../../core/record'
import { getOrThrow, type DeviceId, type PathAt, type PlaceId } from '../../core/site'
import { authorName } from '../lib/device'
import type { PathFound, PathHuntWork } from '../workers/path-hunt'
import { usePathPage } from './usePath'

let worker: Remote<PathHuntWork> | null = null

/** A reading that counts, with the id of its fact. */
export interface PathKept extends PathRead {
  readonly id: string
}

/** The search of a path: what was read since it began, what that says, and what to read next from where one stands. */
export function usePathHunt(path: () => PathAt) {
  const { property, site, t, fixed } = usePathPage()
  const home = computed(() => getOrThrow(site.value.controllers, path().controller).place)
  const kept = computed((): PathKept[] => {
    const own = Object.entries(property.facts!.pathReadings)
      .filter(([, f]) => f.path === path().controller)
      .sort(([a, f], [b, g]) => f.at.localeCompare(g.at) || a.localeCompare(b))
    const back = new Set(own.flatMap(([, { tried }]) => (tried.kind === 'back' ? [tried.reading] : [])))
    const begun = own.findLastIndex(([, { tried }]) => tried.kind === 'begun')
    return own
      .slice(begun + 1)
      .flatMap(([id, { tried }]) => (tried.kind === 'read' && !back.has(id) ? [{ id, ...tried }] : []))
  })
  const placeOf = (test: PathTest): PlaceId =>
    'place' in test ? test.place : 'device' in test ? getOrThrow(site.value.devices, test.device).place : home.value
  const here = computed(() => (kept.value.length > 0 ? placeOf(kept.value.at(-1)!.test) : home.value))
  const sweep = computed((): PathTest[] => [
    { kind: 'line_amps' },
    { kind: 'reports', number: null },
    ...[...new Set(outputsOn(site.value, path()).flatMap((o) => o.address ?? []))].map((number): PathTest => ({
      kind: 'added_amps',
      number,
    })),
  ])
  const { found, behind } = useLatest<PathFound | null>(
    () => [site.value, path().controller, kept.value, here.value],
    () => {
      worker ??= wrap<PathHuntWork>(new Worker(new URL('../workers/path-hunt.ts', import.meta.url), { type: 'module' }))
      const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T
      const read = plain(kept.value.map(({ test, value }) => ({ test, value })))
      return worker.weigh(JSON.stringify(site.value), path().controller, read, here.value, plain(sweep.value))
    },
  )

  const put = (tried: PathTried) =>
    property.record({
      kind: 'pathReading',
      fact: { at: new Date().toISOString(), author: authorName(), path: path().controller, tried },
    })
  const placeTag = (place: PlaceId) => getOrThrow(site.value.places, place).tag
  const deviceTag = (device: DeviceId) => getOrThrow(site.value.devices, device).tag ?? device
  const named = (test: PathTest): string => {
    if (test.kind === 'reports' && test.number !== null) return t('pathFind.tests.reportsOn', { number: test.number })
    return t(`pathFind.tests.${test.kind}`, {
      ...('onto' in test && { onto: placeTag(test.onto) }),
      ...('number' in test && test.number !== null && { number: test.number }),
      ...('device' in test && { device: deviceTag(test.device) }),
    })
  }
  const whereOf = (test: PathTest): string =>
    placeOf(test) === home.value ? t('pathFind.atController') : t('pathFind.nextIn', { place: placeTag(placeOf(test)) })
  const unitOf = ({ kind }: PathTest): 'V' | 'A' | 'Ω' | '' =>
    kind === 'path_volts' ? 'V' : kind.endsWith('amps') ? 'A' : kind === 'number_read' ? '' : 'Ω'
  const said = (test: PathTest, value: PathValue): string =>
    value === null
      ? t(test.kind === 'number_read' ? 'pathFind.noneNumber' : 'pathFind.none')
      : typeof value === 'boolean'
        ? t(value ? 'pathFind.yes' : 'pathFind.no')
        : `${value} ${unitOf(test)}`.trim()
  return {
    site,
    t,
    fixed,
    home,
    kept,
    found,
    behind,
    put,
    named,
    whereOf,
    placeOf,
    placeTag,
    deviceTag,
    unitOf,
    said,
    sweep,
  }
}
