import { pictureBudget } from './picture-budget'
import { isHere, pictureOf, trimPictures } from './pictures'

/** What a property has pictures of: plans under its map, and photos with their small ones, the latest first. */
export interface Pictured {
  readonly underlays: readonly string[]
  readonly photos: readonly { readonly sha256: string; readonly thumb: string }[]
}

/**
 * Fetches the pictures of a property that is kept on this device, as far as the budget goes: plans and small ones
 * first, then the photos themselves. Stops where nobody answers.
 */
export async function keepPictures(property: string, { underlays, photos }: Pictured): Promise<void> {
  const budget = pictureBudget()
  const inOrder = [...underlays, ...photos.map((p) => p.thumb), ...photos.map((p) => p.sha256)]
  let held = await trimPictures(budget)
  for (const sha256 of inOrder) {
    if (held >= budget) return
    if (await isHere(property, sha256)) continue
    const blob = await pictureOf(property, sha256)
    if (!blob) return
    held += blob.size
  }
}
