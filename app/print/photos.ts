import type { Content } from 'pdfmake/interfaces'
import { spans } from './spans'

/** A photo that is printed: its bytes as an address that holds them, and what it shows. */
export interface PrintedPhoto {
  readonly data: string
  readonly says: string
}

export const PHOTOS_ACROSS = 3

/** Photos with what they show, side by side, each so wide in points. */
export const photoRows = (photos: readonly PrintedPhoto[], width: number): Content[] =>
  Array.from({ length: Math.ceil(photos.length / PHOTOS_ACROSS) }, (_, row): Content => ({
    unbreakable: true,
    columnGap: 8,
    margin: [0, 6, 0, 6],
    columns: photos.slice(row * PHOTOS_ACROSS, (row + 1) * PHOTOS_ACROSS).map(({ data, says }) => ({
      width,
      stack: [
        { image: data, fit: [width, width] as [number, number] },
        { text: spans(says), fontSize: 8.5, margin: [0, 2, 0, 0] as [number, number, number, number] },
      ],
    })),
  }))
