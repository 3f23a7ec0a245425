/** Pictures that the service worker keeps, under the address they were fetched by. */
const PICTURES = 'field-thread pictures'
const BUDGET = 'field-thread.pictures-budget'
/** Bytes of pictures that a device keeps where nobody has chosen. */
const USUAL_BUDGET = 200e6
export const BUDGETS: readonly number[] = [50e6, USUAL_BUDGET, 500e6, 1000e6]

export function pictureBudget(): number {
  const chosen = Number(localStorage.getItem(BUDGET) ?? NaN)
  return BUDGETS.includes(chosen) ? chosen : USUAL_BUDGET
}
export const setPictureBudget = (bytes: number): void => localStorage.setItem(BUDGET, String(bytes))

/** Bytes of the pictures on this device, once what is over the budget is let go of, the oldest first. */
export async function trimPictures(budget = pictureBudget()): Promise<number> {
  if (!('caches' in globalThis)) return 0
  const cache = await caches.open(PICTURES)
  const sizes = await Promise.all(
    (await cache.keys()).map(async (request) => ({
      request,
      bytes: (await (await cache.match(request))?.blob())?.size ?? 0,
    })),
  )
  let held = sizes.reduce((sum, s) => sum + s.bytes, 0)
  for (const { request, bytes } of sizes) {
    if (held <= budget) break
    await cache.delete(request)
    held -= bytes
  }
  return held
}
