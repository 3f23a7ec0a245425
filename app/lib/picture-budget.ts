const BUDGET = 'field-thread.pictures-budget'
/** Bytes of pictures that a device keeps where nobody has chosen. */
const USUAL_BUDGET = 200e6
export const BUDGETS: readonly number[] = [50e6, USUAL_BUDGET, 500e6, 1000e6]

/** Bytes of pictures that this device keeps at the most; what was not sent yet is kept whatever it takes. */
export function pictureBudget(): number {
  try {
    const chosen = Number(localStorage.getItem(BUDGET) ?? NaN)
    return BUDGETS.includes(chosen) ? chosen : USUAL_BUDGET
  } catch {
    return USUAL_BUDGET
  }
}
export function setPictureBudget(bytes: number): void {
  try {
    localStorage.setItem(BUDGET, String(bytes))
  } catch {
    /* a device that keeps nothing keeps the usual room */
  }
}
