import type { Observation } from '../beliefs'
import type { FaultHypothesis } from '../catalogue'
import { takenKey } from '../taken'
import { byFault, bySize, type CellClass, type Model } from './classes'
import { Group } from './group'
import type { Fit } from './likelihood'
import { linkedUnits, type Unit } from './units'

/**
 * Groups as they were made, with all that was worked out in them: most stay as they are when one more reading is taken.
 */
export class GroupStock {
  private readonly made = new Map<string, Group>()
  private readonly numbers = new Map<Group, number>()
  private readonly worths = new Map<string, Fit>()
  private readonly units = new Map<string, readonly Unit[]>()

  /** The group of some readings with the classes of its own faults. */
  of(
    model: Model,
    readings: readonly Observation[],
    classes: readonly CellClass[],
    hidden: readonly FaultHypothesis[],
  ): Group {
    const taken = readings.map(({ test, value }) => `${takenKey(test)} ${JSON.stringify(value)}`)
    const own = classes.map((c) => `${c.members[0]!.index} ${c.members.length}`)
    const key = `${model.supply_V.read}|${taken.join()}|${own.join()}|${hidden.length}`
    return this.once(key, () => new Group(model, readings, classes, hidden))
  }

  /** Groups that a shared fault leads to each other, as one. */
  linking(model: Model, groups: readonly Group[]): Group {
    return this.once(
      `linked ${this.namesOf(groups)}`,
      () =>
        new Group(
          model,
          groups.flatMap((g) => g.readings),
          groups.flatMap((g) => [...g.classes.flatMap((c) => byFault(model, c.members)), ...bySize(model, g.hidden)]),
          [],
          groups,
        ),
    )
  }

  /** What one more shared fault is worth to groups that it leads to each other: worked out once for these faults. */
  worth(groups: readonly Group[], shared: readonly FaultHypothesis[], make: (units: readonly Unit[]) => Fit): Fit {
    const depths = groups.map((g) => (g.isDeep ? 'd' : '')).join()
    const key = `${this.namesOf(groups)} ${depths} ${shared.map((v) => v.index).join()}`
    const fit = this.worths.get(key) ?? make(this.unitsOf(groups))
    this.worths.set(key, fit)
    return fit
  }
  /** The readings of groups that are led to each other. */
  private unitsOf(groups: readonly Group[]): readonly Unit[] {
    const [first] = groups
    if (!first || groups.length === 1) return first?.units ?? []
    const name = this.namesOf(groups)
    const units = this.units.get(name) ?? linkedUnits(first.model, groups)
    this.units.set(name, units)
    return units
  }
  private namesOf(groups: readonly Group[]): string {
    return groups.map((g) => this.numbers.get(g)).join()
  }

  private once(key: string, make: () => Group): Group {
    let group = this.made.get(key)
    if (!group) {
      group = make()
      this.made.set(key, group)
      this.numbers.set(group, this.numbers.size)
    }
    return group
  }
}
