import type { Complex } from './complex'

/** An admittance between two nodes. */
export interface Admittance {
  readonly a: number
  readonly b: number
  readonly y: Complex
}

/**
 * A right-hand side taken through the forward half of the solution: the slots that it reaches, ascending, and its
 * values there.
 */
export interface Forward {
  readonly at: Int32Array
  readonly re: Float64Array
  readonly im: Float64Array
}

/**
 * A complex symmetric network taken apart once (L·D·Lᵀ by star-mesh, fewest neighbours first), solved again and again.
 * Nodes are renumbered into slots in the order of elimination; references come last and stay at 0 V.
 */
export interface Factor {
  readonly nodeCount: number
  readonly slotOf: Int32Array
  /** Nodes as they were taken out. */
  readonly order: readonly number[]
  /** Unit current into one node and out of another (−1: the reference), taken forward. */
  readonly forward: (into: number, outOf: number) => Forward
  /** fᵀ·D⁻¹·g: the volts that the one current makes along the other, Ω. */
  readonly transferImpedance: (f: Forward, g: Forward) => Complex
  /**
   * Volts of every slot for a sum of taken-forward currents; writes into the two arrays, references get 0. `begin`:
   * what `halfway` made of currents that flow besides.
   */
  readonly back: (parts: readonly Taken[], re: Float64Array, im: Float64Array, begin?: Halfway) => void
  /** A sum of taken-forward currents as the backward half begins with it, once for many solutions. */
  readonly halfway: (parts: readonly Taken[]) => Halfway
}

/** A taken-forward current and how much of it flows. */
export interface Taken {
  readonly f: Forward
  readonly times: Complex
}
/** By slot, before the backward half. */
export interface Halfway {
  readonly re: Float64Array
  readonly im: Float64Array
}

/** The rows of L by slot, one after the other, and 1 over the pivots: what solving goes through. */
interface Rows {
  readonly count: number
  /** Where each slot's columns begin; one more than there are slots. */
  readonly start: Int32Array
  readonly column: Int32Array
  readonly shareRe: Float64Array
  readonly shareIm: Float64Array
  readonly overRe: Float64Array
  readonly overIm: Float64Array
}

/**
 * Factors the network. Every connected part must hold exactly one reference node.
 * Wiring is nearly a tree, so hardly anything fills in: time and memory grow with the number of nodes. `kept`: the
 * order of an earlier factor of the same nodes, taken as it is.
 */
export function factorOf(
  nodeCount: number,
  elements: readonly Admittance[],
  references: Iterable<number>,
  kept?: readonly number[],
): Factor {
  const isReference = new Uint8Array(nodeCount)
  for (const node of references) isReference[node] = 1
  const { order: first, around, pivots } = eliminate(nodeCount, elements, isReference, kept)
  const order = kept ?? byLevel(first, around)
  const slotOf = new Int32Array(nodeCount)
  order.forEach((node, slot) => {
    slotOf[node] = slot
  })
  let last = order.length
  for (let node = 0; node < nodeCount; node++) if (isReference[node]) slotOf[node] = last++
  const rows = rowsOf(order, slotOf, around, pivots)
  return {
    nodeCount,
    slotOf,
    order,
    forward: forwardOf(rows, slotOf, isReference),
    transferImpedance: transferOf(rows),
    back: backOf(rows),
    halfway: (parts) => {
      const made = { re: new Float64Array(nodeCount), im: new Float64Array(nodeCount) }
      addTaken(rows, parts, made.re, made.im)
      return made
    },
  }
}

function rowsOf(
  order: readonly number[],
  slotOf: Int32Array,
  around: readonly Row[],
  pivots: { readonly re: Float64Array; readonly im: Float64Array },
): Rows {
  const count = order.length
  const start = new Int32Array(count + 1)
  for (let s = 0; s < count; s++) start[s + 1] = start[s]! + around[order[s]!]!.to.length
  const column = new Int32Array(start[count]!)
  const [shareRe, shareIm] = [new Float64Array(column.length), new Float64Array(column.length)]
  const [overRe, overIm] = [new Float64Array(count), new Float64Array(count)]
  for (let s = 0; s < count; s++) {
    const node = order[s]!
    const { to, re, im } = around[node]!
    const [pr, pi] = [pivots.re[node]!, pivots.im[node]!]
    const square = pr * pr + pi * pi
    overRe[s] = pr / square
    overIm[s] = -pi / square
    for (let k = 0; k < to.length; k++) {
      const at = start[s]! + k
      column[at] = slotOf[to[k]!]!
      shareRe[at] = re[k]! * overRe[s]! - im[k]! * overIm[s]!
      shareIm[at] = re[k]! * overIm[s]! + im[k]! * overRe[s]!
    }
  }
  return { count, start, column, shareRe, shareIm, overRe, overIm }
}

/** The forward half: from a current into and out of two nodes to what it comes to at every slot that it reaches. */
function forwardOf({ count, start, column, shareRe, shareIm }: Rows, slotOf: Int32Array, isReference: Uint8Array) {
  // What a slot passes on reaches no further than its path in the elimination tree: from parent to parent, upward.
  const parent = new Int32Array(count)
  for (let s = 0; s < count; s++) {
    parent[s] = count
    for (let k = start[s]!; k < start[s + 1]!; k++) if (column[k]! < parent[s]!) parent[s] = column[k]!
  }
  // Scratch, zero between calls.
  const [scratchRe, scratchIm, path] = [new Float64Array(count), new Float64Array(count), new Int32Array(count)]
  return (into: number, outOf: number): Forward => {
    const enter = (node: number, amps: number): number => {
      if (node < 0 || isReference[node]) return count
      scratchRe[slotOf[node]!]! += amps
      return slotOf[node]!
    }
    let [p, q] = [enter(into, 1), enter(outOf, -1)]
    let length = 0
    while (p < count || q < count) {
      const s = p < q ? p : q
      path[length++] = s
      if (p === s) p = parent[s]!
      if (q === s) q = parent[s]!
    }
    const at = path.slice(0, length)
    const [re, im] = [new Float64Array(length), new Float64Array(length)]
    for (let i = 0; i < length; i++) {
      const s = at[i]!
      const br = scratchRe[s]!
      const bi = scratchIm[s]!
      re[i] = br
      im[i] = bi
      scratchRe[s] = 0
      scratchIm[s] = 0
      for (let k = start[s]!, end = start[s + 1]!; k < end; k++) {
        const c = column[k]!
        scratchRe[c]! += shareRe[k]! * br - shareIm[k]! * bi
        scratchIm[c]! += shareRe[k]! * bi + shareIm[k]! * br
      }
    }
    return { at, re, im }
  }
}

function transferOf({ overRe, overIm }: Rows) {
  return (f: Forward, g: Forward): Complex => {
    let sumRe = 0
    let sumIm = 0
    const { at: fAt, re: fRe, im: fIm } = f
    const { at: gAt, re: gRe, im: gIm } = g
    for (let i = 0, j = 0; i < fAt.length && j < gAt.length;) {
      const s = fAt[i]!
      const t = gAt[j]!
      if (s < t) i++
      else if (t < s) j++
      else {
        const pr = fRe[i]! * gRe[j]! - fIm[i]! * gIm[j]!
        const pi = fRe[i]! * gIm[j]! + fIm[i]! * gRe[j]!
        sumRe += pr * overRe[s]! - pi * overIm[s]!
        sumIm += pr * overIm[s]! + pi * overRe[s]!
        i++
        j++
      }
    }
    return { re: sumRe, im: sumIm }
  }
}

/** Adds currents as the backward half takes them: each slot’s share over its pivot. */
function addTaken({ overRe, overIm }: Rows, parts: readonly Taken[], re: Float64Array, im: Float64Array): void {
  for (let n = 0; n < parts.length; n++) {
    const { at, re: fRe, im: fIm } = parts[n]!.f
    const xr = parts[n]!.times.re
    const xi = parts[n]!.times.im
    for (let i = 0; i < at.length; i++) {
      const s = at[i]!
      const br = fRe[i]! * xr - fIm[i]! * xi
      const bi = fRe[i]! * xi + fIm[i]! * xr
      re[s]! += br * overRe[s]! - bi * overIm[s]!
      im[s]! += br * overIm[s]! + bi * overRe[s]!
    }
  }
}

/** The backward half: volts of every slot. */
function backOf(rows: Rows): Factor['back'] {
  const { count, start, column, shareRe, shareIm } = rows
  // Nearly every row has one column: kept apart, so that the backward half runs without an inner loop. A row with none
  // takes nothing from itself.
  const column1 = Int32Array.from({ length: count }, (_, s) => (start[s]! < start[s + 1]! ? column[start[s]!]! : s))
  const [share1Re, share1Im] = [shareRe, shareIm].map((share) =>
    Float64Array.from({ length: count }, (_, s) => (start[s]! < start[s + 1]! ? share[start[s]!]! : 0)),
  ) as [Float64Array, Float64Array]
  const meshed = Uint8Array.from({ length: count }, (_, s) => Number(start[s + 1]! - start[s]! > 1))
  return (parts, re, im, begin) => {
    if (begin) {
      re.set(begin.re)
      im.set(begin.im)
    } else {
      re.fill(0)
      im.fill(0)
    }
    addTaken(rows, parts, re, im)
    for (let s = count - 1; s >= 0; s--) {
      const c = column1[s]!
      const ur = re[c]!
      const ui = im[c]!
      let vr = re[s]! + (share1Re[s]! * ur - share1Im[s]! * ui)
      let vi = im[s]! + (share1Re[s]! * ui + share1Im[s]! * ur)
      if (meshed[s]) {
        for (let k = start[s]! + 1, end = start[s + 1]!; k < end; k++) {
          const d = column[k]!
          vr += shareRe[k]! * re[d]! - shareIm[k]! * im[d]!
          vi += shareRe[k]! * im[d]! + shareIm[k]! * re[d]!
        }
      }
      re[s] = vr
      im[s] = vi
    }
  }
}

/**
 * The same elimination, those farthest from a reference first. Any order that takes a node before all that it passes
 * on to gives the same rows; in this one neighbours in the list do not wait for each other, which a processor turns
 * into speed.
 */
function byLevel(order: readonly number[], around: readonly Row[]): number[] {
  const placeOf = new Int32Array(around.length)
  order.forEach((node, place) => {
    placeOf[node] = place
  })
  const level = new Int32Array(order.length)
  let deepest = 0
  for (let place = order.length - 1; place >= 0; place--) {
    for (const to of around[order[place]!]!.to) level[place] = Math.max(level[place]!, level[placeOf[to]!]! + 1)
    deepest = Math.max(deepest, level[place]!)
  }
  const levels: number[][] = Array.from({ length: deepest + 1 }, () => [])
  order.forEach((node, place) => levels[deepest - level[place]!]!.push(node))
  return levels.flat()
}

interface Row {
  to: number[]
  re: number[]
  im: number[]
  refRe: number
  refIm: number
}

/**
 * A network from which nodes are taken out one by one (the star-mesh transform); rows are as they were when their node
 * went. A pivot is summed when its node goes: sums of admittances with real parts above zero, so nothing cancels and
 * none is lost.
 */
class Mesh {
  readonly around: readonly Row[]
  readonly pivots: { readonly re: Float64Array; readonly im: Float64Array }

  constructor(
    nodeCount: number,
    elements: readonly Admittance[],
    private readonly isReference: Uint8Array,
  ) {
    this.around = Array.from({ length: nodeCount }, () => ({ to: [], re: [], im: [], refRe: 0, refIm: 0 }))
    this.pivots = { re: new Float64Array(nodeCount), im: new Float64Array(nodeCount) }
    for (const { a, b, y } of elements) {
      if (a === b) continue
      this.add(a, b, y.re, y.im)
      this.add(b, a, y.re, y.im)
    }
  }

  /** Adds an admittance to one node's row; what leads to a reference is kept apart. */
  private add(from: number, to: number, re: number, im: number): void {
    const row = this.around[from]!
    if (this.isReference[to]) {
      row.refRe += re
      row.refIm += im
      return
    }
    const k = row.to.indexOf(to)
    if (k < 0) {
      row.to.push(to)
      row.re.push(re)
      row.im.push(im)
    } else {
      row.re[k]! += re
      row.im[k]! += im
    }
  }

  takeOut(node: number): Row {
    const row = this.around[node]!
    const count = row.to.length
    let [pr, pi] = [row.refRe, row.refIm]
    for (let i = 0; i < count; i++) {
      pr += row.re[i]!
      pi += row.im[i]!
    }
    this.pivots.re[node] = pr
    this.pivots.im[node] = pi
    const square = pr * pr + pi * pi
    for (let i = 0; i < count; i++) {
      const other = this.around[row.to[i]!]!
      forget(other, node)
      const [gr, gi] = [row.re[i]!, row.im[i]!]
      const [fr, fi] = [(gr * pr + gi * pi) / square, (gi * pr - gr * pi) / square]
      other.refRe += fr * row.refRe - fi * row.refIm
      other.refIm += fr * row.refIm + fi * row.refRe
      for (let j = 0; j < count; j++)
        if (j !== i)
          this.add(row.to[i]!, row.to[j]!, row.re[j]! * fr - row.im[j]! * fi, row.re[j]! * fi + row.im[j]! * fr)
    }
    return row
  }
}

/** Takes a neighbour out of a row; the last one comes in its place. */
function forget(row: Row, node: number): void {
  const k = row.to.indexOf(node)
  row.to[k] = row.to.at(-1)!
  row.re[k] = row.re.at(-1)!
  row.im[k] = row.im.at(-1)!
  row.to.pop()
  row.re.pop()
  row.im.pop()
}

/** Takes out every node that is no reference, those with the fewest neighbours first, or in an order `kept`. */
function eliminate(
  nodeCount: number,
  elements: readonly Admittance[],
  isReference: Uint8Array,
  kept?: readonly number[],
) {
  const mesh = new Mesh(nodeCount, elements, isReference)
  const { around, pivots } = mesh
  if (kept) {
    for (const node of kept) mesh.takeOut(node)
    return { order: kept, around, pivots }
  }
  // Buckets by number of neighbours; an entry whose count is out of date is passed over when met.
  const buckets: number[][] = []
  const file = (node: number) => (buckets[around[node]!.to.length] ??= []).push(node)
  for (let node = 0; node < nodeCount; node++) if (!isReference[node]) file(node)
  const taken = new Uint8Array(nodeCount)
  const order: number[] = []
  for (let degree = 0; degree < buckets.length;) {
    const node = buckets[degree]?.pop()
    if (node === undefined) {
      degree++
      continue
    }
    if (taken[node] || around[node]!.to.length !== degree) continue
    taken[node] = 1
    order.push(node)
    for (const n of mesh.takeOut(node).to) file(n)
    degree = Math.max(0, degree - 1)
  }
  return { order, around, pivots }
}
