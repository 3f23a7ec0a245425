import { useI18n } from 'vue-i18n'
import type { Shown } from '../../core/record'
import { photoForPrint } from '../lib/photo-print'
import { pictureOf } from '../lib/pictures'
import type { PrintedPhoto } from '../print/photos'
import { useProperty } from '../stores/property'
import { usePhotoWords } from './usePhotoWords'
import { dayText } from './useSpeaker'

/** A photo that is to be printed, with the tag of where it was taken. */
export interface ToPrint {
  readonly shown: Shown
  readonly tag: string | null
}

/** Photos with what they show, ready for a print; those that cannot be had are left out. */
export function usePrintedPhotos() {
  usePhotoWords()
  const property = useProperty()
  const { t } = useI18n()
  return async (photos: readonly ToPrint[]): Promise<PrintedPhoto[]> => {
    const id = property.held!.id
    const all = await Promise.all(
      photos.map(async ({ shown: { photo, says, marks }, tag }): Promise<PrintedPhoto[]> => {
        const blob =
          (await pictureOf(id, photo.sha256).catch(() => null)) ?? (await pictureOf(id, photo.thumb).catch(() => null))
        const data = blob && (await photoForPrint(blob, marks).catch(() => null))
        if (!data) return []
        const said = [says || t('photos.photo'), tag, dayText(photo.at)].filter((x) => x !== null).join(' · ')
        return [{ data, says: said }]
      }),
    )
    return all.flat()
  }
}
