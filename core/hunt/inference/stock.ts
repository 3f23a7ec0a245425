import type { Observation } from '../beliefs'
import type { FaultHypothesis } from '../catalogue'
import { takenKey } from '../taken'
import { byFault, bySize, type CellClass, type Model } from './classes'
import { Group } from './group'
import type { Fit } from './likelihood'
import { linkedUnits, type Unit } from './units'

/** Groups that a shared fault leads to each other, with what was worked out of them together. */
interface Led {
  readonly groups: readonly Group[]
  readonly units: readonly Unit[]
  readonly worths: Map<string, Fit>
  one: Group | null
}

/**
 * Groups as they were made, with all that was worked out in them: most stay as they are when one more reading is taken.
 */
export class GroupStock {
  private readonly made = new Map<string, Group>()
  private readonly numbers = new Map<Group, number>()
  private readonly led = new Map<string, Led>()
  private numbered = 0

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
    let group = this.made.get(key)
    if (!group) {
      group = new Group(model, readings, classes, hidden)
      this.made.set(key, group)
      this.numbers.set(group, this.numbered++)
    }
    return group
  }

  /** Forgets all groups but these, and what was worked out of them with others: they are as they were no more. */
  keepOnly(groups: readonly Group[]): void {
    const kept = new Set(groups)
    for (const [key, group] of this.made) {
      if (kept.has(group)) continue
      this.made.delete(key)
      this.numbers.delete(group)
    }
    // Some of these are led on in turn, which were listed later.
    for (const [key, { groups: of, one }] of this.led)
      if (of.every((g) => kept.has(g))) {
        if (one) kept.add(one)
      } else {
        this.led.delete(key)
        if (one) this.numbers.delete(one)
      }
  }

  /** Groups that a shared fault leads to each other, as one. */
  linking(model: Model, groups: readonly Group[]): Group {
    const led = this.ledOf(groups)
    if (!led.one) {
      led.one = new Group(
        model,
        groups.flatMap((g) => g.readings),
        groups.flatMap((g) => [...g.classes.flatMap((c) => byFault(model, c.members)), ...bySize(model, g.hidden)]),
        [],
        groups,
      )
      this.numbers.set(led.one, this.numbered++)
    }
    return led.one
  }

  /** What one more shared fault is worth to groups that it leads to each other: worked out once for these faults. */
  worth(groups: readonly Group[], shared: readonly FaultHypothesis[], make: (units: readonly Unit[]) => Fit): Fit {
    const { units, worths } = this.ledOf(groups)
    const key = `${groups.map((g) => g.floor).join()} ${shared.map((v) => v.index).join()}`
    const fit = worths.get(key) ?? make(units)
    worths.set(key, fit)
    return fit
  }

  private ledOf(groups: readonly Group[]): Led {
    const key = groups.map((g) => this.numbers.get(g)).join()
    let led = this.led.get(key)
    if (!led) {
      const [first] = groups
      const units = groups.length > 1 ? linkedUnits(first!.model, groups) : (first?.units ?? [])
      this.led.set(key, (led = { groups, units, worths: new Map(), one: null }))
    }
    return led
  }
}
