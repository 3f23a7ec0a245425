/** Disjoint sets, by union and find with halved paths; what was never joined is a set of its own. */
export class DisjointSets<T> {
  private readonly parent = new Map<T, T>()

  join(a: T, b: T): void {
    this.parent.set(this.of(a), this.of(b))
  }

  /** The set that something belongs to, named by one of its members. */
  of(member: T): T {
    let at = member
    for (let up = this.parent.get(at); up !== undefined && up !== at; up = this.parent.get(at)) {
      const above = this.parent.get(up) ?? up
      this.parent.set(at, above)
      at = above
    }
    return at
  }
}
