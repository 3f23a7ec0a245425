/** Adds up what is believed, by a part's number and as a whole, from logs that lie around `about`. */
export class LogSumAccumulator {
  private readonly parts: Float64Array
  private whole = 0
  constructor(
    private readonly about: number,
    parts: number,
  ) {
    this.parts = new Float64Array(parts)
  }
  /** `counted`: what it is worth in the whole, where it comes up more than once. */
  add(part: number, log: number, counted = 1): void {
    const w = Math.exp(log - this.about)
    this.parts[part]! += w
    this.whole += counted * w
  }
  addPair(one: number, other: number, log: number): void {
    const w = Math.exp(log - this.about)
    this.parts[one]! += w
    this.parts[other]! += w
    this.whole += w
  }
  all(): number {
    return this.about + Math.log(this.whole)
  }
  /** A part's log. */
  of(part: number): number {
    return this.about + Math.log(this.parts[part]!)
  }
}
