/** One of the things that can be picked, and what it is called. */
export interface Option<T> {
  readonly value: T
  readonly label: string
}

/** Options of values that are picked as they are. */
export const optionsOf = <const T>(values: readonly T[], say: (value: T) => string): Option<T>[] =>
  values.map((value) => ({ value, label: say(value) }))

/** The list with this one in it, or without it. */
export const withOrWithout = <T>(list: readonly T[], one: T, isIn: boolean): T[] => {
  const others = list.filter((x) => x !== one)
  return isIn ? [...others, one] : others
}
