import type { Facts } from './kinds'
import type { Photo } from './kinds/photo'
import type { PhotoMark } from './kinds/photo-note'

/** A photo with what is said of it now. */
export interface Shown {
  readonly id: string
  readonly photo: Photo
  readonly says: string
  readonly marks: readonly PhotoMark[]
}

/** The photos that are shown, the latest first, each with its latest note; those that are gone are left out. */
export function photosOf(facts: Facts): Shown[] {
  const notes = new Map<string, Facts['photoNotes'][string]>()
  for (const note of Object.values(facts.photoNotes)) {
    const before = notes.get(note.photo)
    if (!before || Date.parse(note.at) >= Date.parse(before.at)) notes.set(note.photo, note)
  }
  return Object.entries(facts.photos)
    .filter(([id]) => notes.get(id)?.gone !== true)
    .map(([id, photo]) => ({ id, photo, says: notes.get(id)?.says ?? '', marks: notes.get(id)?.marks ?? [] }))
    .sort((a, b) => Date.parse(b.photo.at) - Date.parse(a.photo.at))
}
