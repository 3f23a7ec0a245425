import type { Change, Complex, Spot } from '../../circuit'
import type { State } from '../context'
import type { Alter, FaultHypothesis, Faults, NetworkEdit } from './fault'

/**
 * All that some faults do at once; `at` chooses which of a variant's settings. `ends` are the nodes of an element:
 * where one fault changes the very element along which the other touches, the touching moves to the nearer end of it.
 */
export function modsOf(
  faults: Faults,
  ends: (element: number) => { readonly a: number; readonly b: number },
  at: (v: FaultHypothesis) => NetworkEdit = (v) => v.mods,
): NetworkEdit {
  if (faults.length === 1) return at(faults[0]!)
  const alters = faults.flatMap((v) => at(v).alters)
  const clear = (s: Spot): Spot =>
    'node' in s || !alters.some((x) => x.element === s.element)
      ? s
      : { node: s.along < 0.5 ? ends(s.element).a : ends(s.element).b }
  return { alters, joins: faults.flatMap((v) => at(v).joins.map((j) => ({ ...j, p: clear(j.p), q: clear(j.q) }))) }
}

/** Changes of a state's elements; several on one element work one after the other. */
export function changesOf(state: State, alters: readonly Alter[]): Change[] {
  const { parts } = state.powered
  if (alters.length < 2 || (alters.length === 2 && alters[0]!.element !== alters[1]!.element))
    return alters.map(({ element, to }) => ({ element, z: to(parts[element]!.z) }))
  const now = new Map<number, Complex | null>()
  for (const { element, to } of alters) {
    const z = now.has(element) ? now.get(element)! : parts[element]!.z
    now.set(element, z === null ? null : to(z))
  }
  return [...now].map(([element, z]) => ({ element, z }))
}
