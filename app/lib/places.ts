/** A page of a place: its address within a property, and the key of its name. */
interface Tab {
  readonly path: string
  readonly label: string
  /** Left out of the first load: it comes when that is over, so that it opens without a signal too. */
  readonly later: boolean
}
export interface PlaceOfWork {
  readonly key: string
  readonly tabs: readonly Tab[]
  /** At the thumb of a phone; the others stand behind “more”. */
  readonly atThumb: boolean
}
const now = (path: string, label: string): Tab => ({ path, label, later: false })
const later = (path: string, label: string): Tab => ({ path, label, later: true })

/** The seven places of a property in the order of the work, each with its tabs. */
export const PLACES: readonly PlaceOfWork[] = [
  {
    key: 'plan',
    tabs: [
      later('/plan', 'plan.list'),
      later('/plan/map', 'plan.map'),
      later('/plan/wiring', 'plan.wiring'),
      later('/plan/sizes', 'plan.sizes'),
      later('/plan/material', 'plan.material'),
      later('/plan/schedule', 'plan.schedule'),
    ],
    atThumb: false,
  },
  {
    key: 'cabinet',
    tabs: [later('/controller', 'places.controller'), later('/boxes', 'places.boxes'), later('/path', 'places.path')],
    atThumb: false,
  },
  { key: 'threads', tabs: [now('', 'places.threads')], atThumb: true },
  {
    key: 'test',
    tabs: [now('/test', 'places.sweeps'), later('/test/compare', 'places.compare'), later('/test/wet', 'places.wet')],
    atThumb: true,
  },
  {
    key: 'find',
    tabs: [later('/diagnose', 'places.diagnose'), later('/trace', 'places.trace'), later('/cores', 'places.cores')],
    atThumb: true,
  },
  {
    key: 'work',
    tabs: [
      later('/work', 'places.visits'),
      later('/work/procedures', 'places.procedures'),
      later('/work/findings', 'places.findings'),
      later('/work/quote', 'places.quote'),
      later('/work/mended', 'places.mended'),
    ],
    atThumb: true,
  },
  {
    key: 'record',
    tabs: [
      later('/record', 'places.record'),
      later('/record/timeline', 'places.timeline'),
      later('/record/photos', 'places.photos'),
      later('/record/cards', 'places.cards'),
    ],
    atThumb: false,
  },
]

/**
 * The tab that an address within a property belongs to, with its place: the one whose own address is the longest part.
 */
export function tabAt(path: string): { place: PlaceOfWork; tab: Tab } | null {
  const found = PLACES.flatMap((place) => place.tabs.map((tab) => ({ place, tab })))
    .filter(({ tab }) => path === tab.path || (tab.path !== '' && path.startsWith(`${tab.path}/`)))
    .sort((a, b) => b.tab.path.length - a.tab.path.length)
  return found[0] ?? null
}
