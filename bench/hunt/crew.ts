import {
  crewAt,
  candidatesOf,
  huntContextOf,
  minutesOf,
  USUAL_COSTS,
  walkingOf,
  type Candidate,
  type Crew,
} from '../../core/hunt'
import { testKey, type FieldTest } from '../../core/record'
import { getOrThrow, type PlaceId, type Site } from '../../core/site'
import { A } from './draw-fault'

/** A needless part or a dig in the wrong place, minutes. */
export const WRONG_min = 60

/** Counts the minutes of a crew at a property, by the same costs for whoever tells it what to do. */
export class Clock {
  minutes = 0
  private readonly context
  private readonly candidates: ReadonlyMap<string, Candidate>
  private readonly walking
  private crew: Crew
  private readonly cabinet: PlaceId

  constructor(private readonly site: Site) {
    this.context = huntContextOf(site, A)!
    this.candidates = new Map(candidatesOf(this.context).map((c) => [testKey(c.test), c]))
    this.walking = walkingOf(this.context)
    this.cabinet = getOrThrow(site.controllers, A).place
    this.crew = crewAt(this.cabinet)
  }

  test(test: FieldTest): void {
    // Any two leads can be read against each other at the cabinet.
    const candidate =
      this.candidates.get(testKey(test)) ??
      (test.kind === 'ohms'
        ? { test, place: this.cabinet, needs: { leads: 'off', set: null, undone: null } as const }
        : null)
    if (!candidate) throw new Error(`Clock: no such test here: ${testKey(test)}`)
    const { minutes, then } = minutesOf(this.context, USUAL_COSTS, this.walking, this.crew, candidate)
    this.minutes += minutes
    this.crew = then
  }

  /** Back to the first test: joints are whole again. */
  afresh(): void {
    this.crew = { ...this.crew, undone: new Set() }
  }

  /**
   * What it takes to find a part without a hint: every box in the order of the door, opened, every joint in it undone
   * and read, until the part's own place has been gone through. A run is found at its far end, and dug for nothing
   * once more is not needed.
   */
  searchTo(places: readonly PlaceId[]): void {
    const boxes = Object.keys(this.site.places).filter((p) => p !== this.cabinet) as PlaceId[]
    let at = this.crew.place
    for (const box of [this.cabinet, ...boxes]) {
      this.minutes +=
        this.walking(at, box) / USUAL_COSTS.walk_mPerS / 60 +
        (this.crew.opened.has(box) ? 0 : USUAL_COSTS.open_min) +
        USUAL_COSTS.first_min
      if (box !== this.cabinet)
        this.minutes +=
          USUAL_COSTS.undo_min *
          Object.values(this.site.splices).filter((s) => s.place === box && s.ends.length > 1).length
      at = box
      if (places.includes(box) && places.at(-1) === box) break
    }
    this.crew = { ...this.crew, place: at }
  }
}
