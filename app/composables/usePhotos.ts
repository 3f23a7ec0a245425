import { photosOf, type Shown, type WorkTarget } from '../../core/record'
import { placeOf, isOnRecord } from '../../core/procedure'
import { getOrThrow, type PlaceId } from '../../core/site'
import { authorName } from '../lib/device'
import { sendPictures, takePhoto } from '../lib/pictures'
import { useProperty } from '../stores/property'

/** What a photo is taken of, and in the course of what. */
export interface PhotoOf {
  readonly on: WorkTarget
  readonly job?: string
  readonly step?: string
}

/** The photos of a property, and the door by which new ones come in. */
export function usePhotos() {
  const property = useProperty()
  const all = computed((): Shown[] => (property.facts ? photosOf(property.facts) : []))

  /** Those of a box: of itself, and of the joints and devices in it. */
  const ofPlace = (place: PlaceId): Shown[] =>
    all.value.filter(({ photo: { on } }) => isOnRecord(property.site!, on) && placeOf(property.site!, on) === place)

  /** Takes a photo in; resolves to its id, or to why it cannot be. */
  async function take(file: Blob, { on, job, step }: PhotoOf): Promise<{ id: string } | 'no_picture' | 'too_large'> {
    const taken = await takePhoto(property.held!.id, file)
    if (typeof taken === 'string') return taken
    const id = await property.record({
      kind: 'photo',
      fact: {
        at: new Date().toISOString(),
        author: authorName(),
        ...taken,
        on,
        ...(job === undefined ? {} : { job }),
        ...(step === undefined ? {} : { step }),
      },
    })
    sendPictures(property.held!.id).catch(() => undefined)
    return { id }
  }
  const note = (photo: string, { says, marks, gone = false }: Pick<Shown, 'says' | 'marks'> & { gone?: boolean }) =>
    property.record({
      kind: 'photoNote',
      fact: { photo, at: new Date().toISOString(), author: authorName(), says, marks: [...marks], gone },
    })
  /** Where a photo was taken, as a tag; none of what is on record no more. */
  const placeTag = ({ photo: { on } }: Shown): string | null => {
    if (!property.site || !isOnRecord(property.site, on)) return null
    const place = placeOf(property.site, on)
    return place && getOrThrow(property.site.places, place).tag
  }
  return { all, ofPlace, take, note, placeTag }
}
