import { DisjointSets } from '../site'
import { complex, inverse, minus, plus, scaled, size, solveDense, times, type Complex } from './complex'
import { factorOf, type Forward, type Taken } from './factor'
import { partlyShorted } from './impedance'
import { LEAST_ohm } from './network'
import { partsOf } from './parts'
import type { Draw, Powered } from './powered'

/**
 * A change of a powered network. Elements go by their place in `parts`, nodes by their number. `close` is a terminal
 * switched on at its controller; the rest are faults, and `element` sets any impedance.
 */
export type Edit =
  | { readonly kind: 'close'; readonly node: number; readonly hot: number }
  | { readonly kind: 'open'; readonly element: number }
  | { readonly kind: 'series'; readonly element: number; readonly ohm: number }
  | { readonly kind: 'element'; readonly element: number; readonly z: Complex }
  | { readonly kind: 'bridge'; readonly a: number; readonly b: number; readonly ohm: number }
  | { readonly kind: 'leak'; readonly node: number; readonly ohm: number }
  /** So much current leaves one node and comes back at another, whatever the volts between them. */
  | ({ readonly kind: 'draw' } & Draw)
  | { readonly kind: 'coil_short'; readonly element: number }
  | { readonly kind: 'coil_part'; readonly element: number; readonly fraction: number }
  /**
   * Two elements touch part of the way along, measured from each one's `a`; with `second` null, the first touches
   * earth.
   */
  | {
      readonly kind: 'touch'
      readonly first: number
      readonly firstAlong: number
      readonly second: number | null
      readonly secondAlong: number
      readonly ohm: number
    }

/** The state of a network after some edits. Volts are against the common of the node's own controller. */
export interface Solution {
  /** Real and imaginary volts by slot; `slotOf` of the engine tells a node's. */
  readonly re: Float64Array
  readonly im: Float64Array
  readonly volts: (node: number) => Complex
  /** Whether a node has no way to any source: it has no volts, and reads 0. */
  readonly floating: (node: number) => boolean
  /** The element's admittance with the edits in it; null where it is open. */
  readonly admittance: (element: number) => Complex | null
  /** The current through a switched-on terminal, by its node. */
  readonly closed_A: ReadonlyMap<number, Complex>
}

/** Where volts are written, by slot. */
export interface Target {
  readonly re: Float64Array
  readonly im: Float64Array
}

export interface Engine {
  readonly powered: Powered
  readonly slotOf: Int32Array
  /** The property with these edits. With a `target` the volts are written there, and hold until it is used again. */
  readonly solve: (edits: readonly Edit[], target?: Target) => Solution
}

/** A branch that an edit adds between two nodes; −1 is the reference at 0 V. A removed element is its own negative. */
interface Branch {
  readonly p: number
  readonly q: number
  readonly z: Complex
}

/**
 * Factors the property once. A state or fault is then a change of low rank: its branches' currents come from a small
 * dense system, and one pass gives every node. What the edits cut off or join is found on the graph before any number
 * is looked at, so a part left without a reference cannot show as a division by zero.
 */
export function engineOf(powered: Powered): Engine {
  const { nodeCount, parts, sources, draws } = powered
  const componentOf = partsOf(nodeCount, parts)
  const referenceOf = new Map<number, number>()
  for (const s of sources)
    if (!referenceOf.has(componentOf[s.common]!)) referenceOf.set(componentOf[s.common]!, s.common)
  /** Components with a source, in the sources' order: the first of a joined part keeps its common at 0 V. */
  const sourced = [...referenceOf.keys()]
  for (let n = 0; n < nodeCount; n++) if (!referenceOf.has(componentOf[n]!)) referenceOf.set(componentOf[n]!, n)
  const factor = factorOf(nodeCount, parts, referenceOf.values())
  const { slotOf } = factor
  const drive = sources.map((s) => ({ f: factor.forward(s.hot, s.common), times: complex(s.open_V / s.source_ohm) }))
  const drawn = ({ a, b, amps }: Draw) => ({ f: factor.forward(b, a), times: amps })

  /** Slots by component, listed when a state first moves one against the rest. */
  let listed: Map<number, number[]> | null = null
  const slotsIn = (component: number): readonly number[] => {
    if (listed === null) {
      listed = new Map()
      for (let n = 0; n < nodeCount; n++) {
        const list = listed.get(componentOf[n]!)
        if (list) list.push(slotOf[n]!)
        else listed.set(componentOf[n]!, [slotOf[n]!])
      }
    }
    return listed.get(component) ?? []
  }
  const alone: Structure = {
    loose: [],
    gauges: [],
    componentAt: (node) => componentOf[node]!,
    floating: (node) => !sourced.includes(componentOf[node]!),
    together: (a, b) => componentOf[a] === componentOf[b],
  }
  const runs = ({ together, floating }: Structure, { a, b }: Draw) => together(a, b) && !floating(a)
  const [waiting, resting] = [draws.filter((d) => runs(alone, d)), draws.filter((d) => !runs(alone, d))]
  /** What flows in every state: the sources, and the many decoders that wait on a path. */
  const begin = factor.halfway([...drive, ...waiting.map(drawn)])
  const before: Target = { re: new Float64Array(nodeCount), im: new Float64Array(nodeCount) }
  factor.back([], before.re, before.im, begin)
  const voltsBefore = (node: number): Complex =>
    node < 0 || node >= nodeCount ? complex(0) : { re: before.re[slotOf[node]!]!, im: before.im[slotOf[node]!]! }
  const solve = (
    edits: readonly Edit[],
    target: Target = { re: new Float64Array(nodeCount), im: new Float64Array(nodeCount) },
  ): Solution => {
    const changes = changesOf(powered, edits)
    const within =
      changes.opened.size === 0 && changes.extraNodes === 0 && staysWithin(componentOf, sourced, changes.branches)
    const structure = within ? alone : structureOf(powered, componentOf, sourced, referenceOf, changes)
    const branches = structure.gauges.length === 0 ? changes.branches : [...changes.branches, ...structure.gauges]
    const forwards: Forward[] = []
    for (const { p, q } of branches) forwards.push(factor.forward(q < nodeCount ? q : -1, p < nodeCount ? p : -1))
    const added = changes.draws.filter((d) => runs(structure, d))
    // What a cut leaves without a way home draws nothing any more; what a joint brings in begins to.
    const lost = changes.opened.size === 0 ? [] : waiting.filter((d) => !runs(structure, d))
    const found = structure === alone ? [] : resting.filter((d) => runs(structure, d))
    const more: Taken[] = [
      ...[...added, ...found].map(drawn),
      ...lost.map((d) => drawn({ ...d, amps: scaled(d.amps, -1) })),
    ]
    const open = branches.map(({ p, q }, i) =>
      more.reduce(
        (volts, { f, times: amps }) => minus(volts, times(factor.transferImpedance(forwards[i]!, f), amps)),
        minus(voltsBefore(p), voltsBefore(q)),
      ),
    )
    const { x, offsets } = branchCurrents(factor.transferImpedance, branches, forwards, open, structure, [
      ...added,
      ...found,
    ])
    for (let j = 0; j < branches.length; j++) more.push({ f: forwards[j]!, times: x[j]! })
    factor.back(more, target.re, target.im, begin)
    for (const [component, offset] of offsets) {
      if (component >= nodeCount) continue // an extra node: nobody asks for its volts
      for (const slot of slotsIn(component)) {
        target.re[slot]! += offset.re
        target.im[slot]! += offset.im
      }
    }
    const { re, im } = target
    const closed_A = new Map<number, Complex>()
    for (const [node, j] of changes.closes) closed_A.set(node, scaled(x[j]!, -1))
    return {
      re,
      im,
      closed_A,
      volts: (node) => ({ re: re[slotOf[node]!]!, im: im[slotOf[node]!]! }),
      floating: structure.floating,
      admittance: (element) =>
        changes.opened.has(element) ? null : (changes.admittances.get(element) ?? parts[element]!.y),
    }
  }
  return { powered, slotOf, solve }
}

/** Whether the branches join nothing that was apart: each lies in one component that has a source. */
function staysWithin(componentOf: Int32Array, sourced: readonly number[], branches: readonly Branch[]): boolean {
  for (const { p, q } of branches)
    if (componentOf[p] !== componentOf[q] || !sourced.includes(componentOf[p]!)) return false
  return true
}

interface Changes {
  readonly branches: Branch[]
  readonly opened: Set<number>
  readonly admittances: Map<number, Complex>
  /** Terminals switched on, each with the number of its branch. */
  readonly closes: [node: number, branch: number][]
  readonly draws: Draw[]
  extraNodes: number
  /** Impedance of every element that an edit has touched; null for one that is gone. */
  readonly now: Map<number, Complex | null>
}

/**
 * The edits as added branches, and which elements are gone. Several edits of one element take effect one after the
 * other.
 */
function changesOf({ parts, nodeCount, earth }: Powered, edits: readonly Edit[]): Changes {
  const changes: Changes = {
    branches: [],
    opened: new Set(),
    admittances: new Map(),
    closes: [],
    draws: [],
    extraNodes: 0,
    now: new Map(),
  }
  const { branches, now } = changes
  for (const edit of edits) {
    switch (edit.kind) {
      case 'close':
        changes.closes.push([edit.node, branches.length])
        branches.push({ p: edit.node, q: edit.hot, z: CONTACT })
        break
      case 'open':
        now.set(edit.element, null)
        break
      case 'series':
      case 'coil_part':
      case 'element':
      case 'coil_short': {
        const z = impedanceIn(changes, parts, edit.element)
        if (z === null) break
        now.set(
          edit.element,
          edit.kind === 'series'
            ? plus(z, complex(edit.ohm))
            : edit.kind === 'coil_part'
              ? partlyShorted(z, edit.fraction)
              : edit.kind === 'element'
                ? edit.z
                : CONTACT,
        )
        break
      }
      case 'draw':
        changes.draws.push(edit)
        break
      case 'bridge':
        branches.push({ p: edit.a, q: edit.b, z: complex(Math.max(LEAST_ohm, edit.ohm)) })
        break
      case 'leak':
        branches.push({ p: edit.node, q: earth, z: complex(Math.max(LEAST_ohm, edit.ohm)) })
        break
      case 'touch': {
        const at = splitAt(changes, parts, nodeCount, edit.first, edit.firstAlong)
        const other = edit.second === null ? earth : splitAt(changes, parts, nodeCount, edit.second, edit.secondAlong)
        branches.push({ p: at, q: other, z: complex(Math.max(LEAST_ohm, edit.ohm)) })
        break
      }
    }
  }
  for (const [element, z] of now) {
    const { a, b, y } = parts[element]!
    if (a === b) continue
    if (z === null) changes.opened.add(element)
    else changes.admittances.set(element, inverse(z))
    const change = minus(z === null ? complex(0) : inverse(z), y)
    if (size(change) > 0) branches.push({ p: a, q: b, z: inverse(change) })
  }
  return changes
}

const CONTACT = complex(LEAST_ohm)

const impedanceIn = ({ now }: Changes, parts: Powered['parts'], element: number): Complex | null =>
  now.has(element) ? now.get(element)! : parts[element]!.z

/** Takes an element out and puts its two halves in, with a node of their own between, which is returned. */
function splitAt(changes: Changes, parts: Powered['parts'], nodeCount: number, element: number, along: number): number {
  const z = impedanceIn(changes, parts, element)
  if (z === null) throw new Error(`splitAt: element ${element} is open; a touch needs its conductor whole`)
  const at = nodeCount + changes.extraNodes++
  changes.now.set(element, null)
  changes.branches.push(
    { p: parts[element]!.a, q: at, z: atLeast(scaled(z, along)) },
    { p: at, q: parts[element]!.b, z: atLeast(scaled(z, 1 - along)) },
  )
  return at
}

const atLeast = (z: Complex): Complex => (size(z) < LEAST_ohm ? CONTACT : z)

interface Structure {
  /** Parts of the factored network, or extra nodes, whose potential the edits settle. */
  readonly loose: readonly number[]
  readonly componentAt: (node: number) => number
  /** Branches without current that give a cut-off part of a factored component a potential. */
  readonly gauges: readonly Branch[]
  readonly floating: (node: number) => boolean
  /** Whether two nodes hang together, edits in. */
  readonly together: (a: number, b: number) => boolean
}

function structureOf(
  powered: Powered,
  componentOf: Int32Array,
  sourced: readonly number[],
  referenceOf: ReadonlyMap<number, number>,
  { branches, opened, extraNodes }: Changes,
): Structure {
  const { nodeCount, parts } = powered
  const componentAt = (node: number) => (node < nodeCount ? componentOf[node]! : node)
  // Without a cut, components are the smallest pieces; with one, a component may come apart into several.
  const pieces = opened.size === 0 ? null : partsOf(nodeCount, parts, opened)
  const pieceAt = (node: number) => (node < nodeCount ? (pieces ?? componentOf)[node]! : node)
  const home = (component: number) => (component < nodeCount ? pieceAt(referenceOf.get(component)!) : component)
  const joined = new DisjointSets<number>()
  const root = (piece: number): number => joined.of(piece)
  const touchedNodes: number[] = []
  for (const { p, q, z } of branches) {
    touchedNodes.push(p, q)
    if (z.re >= 0) joined.join(pieceAt(p), pieceAt(q)) // a removed element joins nothing
  }
  for (let k = 0; k < extraNodes; k++) touchedNodes.push(nodeCount + k)
  const rank = (component: number) =>
    sourced.includes(component) ? sourced.indexOf(component) : sourced.length + component
  const components = [...new Set(touchedNodes.map(componentAt))].sort((a, b) => rank(a) - rank(b))
  const anchors = new Map<number, number>()
  for (const c of components) if (!anchors.has(root(home(c)))) anchors.set(root(home(c)), c)
  const loose = components.filter((c) => anchors.get(root(home(c))) !== c)
  const gauges: Branch[] = []
  const held = new Set(anchors.keys())
  for (const node of touchedNodes) {
    const part = root(pieceAt(node))
    if (held.has(part)) continue
    held.add(part)
    gauges.push({ p: node, q: -1, z: complex(1) })
  }
  const live = new Set<number>(sourced.map((c) => root(home(c))))
  return {
    loose,
    componentAt,
    gauges,
    floating: (node) => !live.has(root(pieceAt(node))),
    together: (a, b) => root(pieceAt(a)) === root(pieceAt(b)),
  }
}

type Between = (f: Forward, g: Forward) => Complex

function branchCurrents(
  between: Between,
  branches: readonly Branch[],
  forwards: readonly Forward[],
  open: readonly Complex[],
  { loose, componentAt }: Structure,
  draws: readonly Draw[],
): { x: Complex[]; offsets: [component: number, volts: Complex][] } {
  const n = branches.length
  if (n === 0) return { x: [], offsets: [] }
  const rows: Complex[][] = []
  const right: Complex[] = []
  for (let i = 0; i < n; i++) {
    // Around branch i: the volts along it by every branch's current, its own impedance, the open volts.
    const row: Complex[] = []
    for (let j = 0; j < n; j++) row.push(j < i ? rows[j]![i]! : between(forwards[i]!, forwards[j]!))
    row[i] = plus(row[i]!, branches[i]!.z)
    for (const c of loose) row.push(complex(sideOf(branches[i]!, c, componentAt)))
    rows.push(row)
    right.push(open[i]!)
  }
  // A part with no reference of its own takes in as much as it gives.
  for (const c of loose) {
    rows.push([...branches.map((b) => complex(sideOf(b, c, componentAt))), ...loose.map(() => complex(0))])
    right.push(
      draws.reduce(
        (sum, { a, b, amps }) => plus(sum, scaled(amps, sideOf({ p: b, q: a }, c, componentAt))),
        complex(0),
      ),
    )
  }
  const solved = solveDense(rows, right)
  return { x: solved.slice(0, n), offsets: loose.map((c, k) => [c, solved[n + k]!]) }
}

/** +1 where the branch leads into the component, −1 out of it, 0 elsewhere. */
const sideOf = ({ p, q }: Pick<Branch, 'p' | 'q'>, component: number, componentAt: Structure['componentAt']): number =>
  Number(q >= 0 && componentAt(q) === component) - Number(p >= 0 && componentAt(p) === component)
