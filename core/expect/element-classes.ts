import { entries, netsOf, type Link } from '../site'
import type { OhmsTest } from '../record'
import type { Suspect, FaultSide } from './suspect'
import { nodeAt, type Scene } from './scene'

/**
 * Parts that carry the same share of the meter's current in every test given: opened or gone resistive, they cannot be
 * told apart by these tests. `share` holds the tests in which they carry any.
 */
export interface ElementClass {
  readonly share: ReadonlyMap<number, number>
  readonly representative: number
  /** The elements opened together to make the class's open: one of a series, or all cores of a jacket's stretch. */
  readonly openTogether: readonly number[]
  readonly suspects: readonly Suspect[]
  readonly where: FaultSide
  readonly coil: { readonly element: number; readonly ohm: number } | null
}

/** Shares nearer than this are one: far above rounding, far below what a joint's place in a mesh makes. */
const SAME_SHARE = 1e-7

/**
 * The classes that at least one of the `wanted` tests passes through, and the cuts of whole jackets, which open several
 * parallel cores at once.
 */
export function classesOf(scene: Scene, tests: readonly OhmsTest[], wanted: ReadonlySet<number>): ElementClass[] {
  const { elements } = scene.network
  const shares: Map<number, number>[] = elements.map(() => new Map())
  tests.forEach((test, t) => {
    const [from, to] = [nodeAt(scene, test.from), nodeAt(scene, test.to)]
    if (from === null || to === null || !scene.solver.connected(from, to)) return
    const volts = scene.solver.potentials(from, to)
    elements.forEach((e, i) => {
      const share = Math.abs((volts[e.a]! - volts[e.b]!) / e.ohm)
      if (share > SAME_SHARE) shares[i]!.set(t, share)
    })
  })
  const groups = new Map<string, number[]>()
  elements.forEach((e, i) => {
    if (!e.link || ![...shares[i]!.keys()].some((t) => wanted.has(t))) return
    const key = [...shares[i]!].map(([t, share]) => `${t}:${Math.round(share / SAME_SHARE)}`).join(' ')
    groups.set(key, [...(groups.get(key) ?? []), i])
  })
  const sides = sidesOf(scene)
  const series = [...groups.values()].map((group): ElementClass => {
    const coil = group.find((i) => elements[i]!.link!.kind === 'coil')
    return {
      share: shares[group[0]!]!,
      representative: group[0]!,
      openTogether: [group[0]!],
      suspects: suspectsOf(scene, group),
      where: whereOf(group.map((i) => sides.get(i) ?? 'thread')),
      coil: coil === undefined ? null : { element: coil, ohm: elements[coil]!.ohm },
    }
  })
  return [...series, ...jacketCuts(scene, shares, wanted)]
}

/** Parallel cores of one common die together only when their jacket is cut: every core of the stretch opens. */
function jacketCuts(
  scene: Scene,
  shares: readonly ReadonlyMap<number, number>[],
  wanted: ReadonlySet<number>,
): ElementClass[] {
  const { elements } = scene.network
  const jackets = new Map<string, number[]>()
  elements.forEach((e, i) => {
    if (e.link?.kind !== 'stretch') return
    const key = `${e.link.cable}@${e.link.from}`
    jackets.set(key, [...(jackets.get(key) ?? []), i])
  })
  return [...jackets.values()].flatMap((group): ElementClass[] => {
    const live = group.filter((i) => shares[i]!.size > 0)
    const share = new Map<number, number>()
    for (const i of live) for (const [t, s] of shares[i]!) share.set(t, Math.max(s, share.get(t) ?? 0))
    if (live.length < 2 || ![...share.keys()].some((t) => wanted.has(t))) return []
    return [
      {
        share,
        representative: live[0]!,
        openTogether: group,
        suspects: suspectsOf(scene, live),
        where: 'several',
        coil: null,
      },
    ]
  })
}

/** For every element of wire or joint: `common` where it lies on the net of a common terminal, else `thread`. */
function sidesOf(scene: Scene): Map<number, 'common' | 'thread'> {
  const nets = netsOf(scene.network.wiring)
  const commons = new Set(
    entries(scene.site.controllers).flatMap(([id, c]) =>
      entries(c.terminals)
        .filter(([, t]) => t.role === 'common')
        .map(([terminal]) => nets.of(scene.network.wiring.pointOf({ kind: 'terminal', controller: id, terminal }))),
    ),
  )
  return new Map(
    scene.network.elements.flatMap(({ link }, i) =>
      link && link.kind !== 'coil' ? [[i, commons.has(nets.of(link.a)) ? 'common' : 'thread'] as const] : [],
    ),
  )
}

function whereOf(sides: readonly ('common' | 'thread')[]): FaultSide {
  return sides.every((s) => s === 'common') ? 'common' : 'thread'
}

function suspectsOf(scene: Scene, group: readonly number[]): Suspect[] {
  const found = new Map<string, Suspect>()
  for (const i of group) {
    const suspect = suspectOf(scene, scene.network.elements[i]!.link!)
    found.set(JSON.stringify(suspect), suspect)
  }
  return [...found.values()]
}

function suspectOf({ site }: Scene, link: Link): Suspect {
  switch (link.kind) {
    case 'leg':
      return { kind: 'joint', splice: link.splice, place: site.splices[link.splice]!.place }
    case 'coil':
      return { kind: 'coil', device: link.device, place: site.devices[link.device]!.place }
    case 'stretch': {
      const { stops } = site.cables[link.cable]!
      return {
        kind: 'stretch',
        cable: link.cable,
        core: link.core,
        from: stops[link.from]!.place,
        to: stops[link.to]!.place,
      }
    }
  }
}
