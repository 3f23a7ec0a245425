import { byTag, entries, sameJson, type PlaceId, type Site, type Splice, type SpliceId } from '../site'
import { boxJoints, type Behind } from '../splice'

/** A connector in a box, as it is to be made or was. */
export interface ListedJoint {
  readonly splice: SpliceId
  readonly serves: 'common' | 'lead' | 'other'
  /** As on the door, where it is joined to one. */
  readonly terminal: string | null
  /** The decoder that it is behind, where it is. */
  readonly behind: Behind | null
  readonly conductors: readonly { readonly from: string; readonly colour: string | null }[]
  readonly connector: Splice['connector']
  /** When it was made; null of one that is still to make. */
  readonly made: string | null
}
/** A box with its joints. */
export interface BoxJoints {
  readonly place: PlaceId
  readonly tag: string
  readonly name: string
  readonly joints: readonly ListedJoint[]
}

/** The joints of every place that has any, by tags. */
export const jointList = (site: Site): BoxJoints[] =>
  entries(site.places)
    .sort(([, a], [, b]) => byTag(a.tag, b.tag))
    .map(([place, { tag, name }]) => ({
      place,
      tag,
      name,
      joints: boxJoints(site, place).flatMap(({ serves, terminal, behind, ends, holds }) =>
        holds.map(({ splice, record }): ListedJoint => ({
          splice,
          serves,
          terminal,
          behind,
          conductors: ends.filter((e) => record.ends.some((end) => sameJson(end, e.end))),
          connector: record.connector,
          made: record.made?.value ?? null,
        })),
      ),
    }))
    .filter((box) => box.joints.length > 0)
