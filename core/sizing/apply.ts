import type { Gauge } from '../quantity'
import {
  entries,
  getOrThrow,
  type Cable,
  type Command,
  type CoreId,
  type End,
  type Site,
  stopPositions_m,
  type Splice,
} from '../site'
import type { ChosenSizes } from './size'

/**
 * The commands that write an answer's sizes into the plan, as assumed until somebody sees the wire. A single
 * conductor whose pieces get unlike sizes becomes a cable for each run of pieces alike; its joints stay as they are.
 */
export function sizingCommands(site: Site, { groups, chosen, stock }: ChosenSizes): Command[] {
  const commands: Command[] = []
  const renamed = new Map<string, { id: string; core: string }>()
  const sizeOf = (g: number) => ({ value: stock[chosen[g]!]!.gauge, how: 'assumed' as const, on: null })
  const byCable = new Map<string, number[]>()
  groups.forEach((group, g) => byCable.set(group.cable, [...(byCable.get(group.cable) ?? []), g]))
  for (const [id, members] of byCable) {
    const cable = getOrThrow(site.cables, id)
    const [first] = members
    const alike = members.every((g) => same(sizeOf(g).value, sizeOf(first!).value))
    if (alike) {
      commands.push({ do: 'set', in: 'cables', id, field: 'gauge', value: sizeOf(first!) })
      const cores = Object.fromEntries(
        entries(cable.cores).map(([core, record]) => [
          core,
          record.gauge?.how === 'assumed' ? { ...record, gauge: null } : record,
        ]),
      )
      if (entries(cable.cores).some(([, c]) => c.gauge?.how === 'assumed'))
        commands.push({ do: 'set', in: 'cables', id, field: 'cores', value: cores })
      continue
    }
    const runs: { from: number; to: number; gauge: ReturnType<typeof sizeOf> }[] = []
    for (const g of members.sort((a, b) => groups[a]!.from - groups[b]!.from)) {
      const last = runs.at(-1)
      if (last && same(last.gauge.value, sizeOf(g).value)) last.to = groups[g]!.to
      else runs.push({ from: groups[g]!.from, to: groups[g]!.to, gauge: sizeOf(g) })
    }
    const core = groups[first!]!.core!
    commands.push({ do: 'remove', in: 'cables', id })
    runs.forEach((run, i) => {
      const part = i === 0 ? id : freeId(site, `${id}-${i + 1}`)
      commands.push({ do: 'create', in: 'cables', id: part, record: piece(site, cable, core, run, i) })
      for (let s = run.from; s <= run.to; s++) {
        if (s < run.to) renamed.set(`${id} ${cable.stops[s]!.id} leaves`, { id: part, core })
        if (s > run.from) renamed.set(`${id} ${cable.stops[s]!.id} arrives`, { id: part, core })
      }
    })
  }
  return [...commands, ...rejoined(site, renamed)]
}

const same = (a: Gauge, b: Gauge) => JSON.stringify(a) === JSON.stringify(b)

function freeId(site: Site, wanted: string): string {
  let id = wanted
  for (let n = 2; Object.hasOwn(site.cables, id); n++) id = `${wanted}-${n}`
  return id
}

function piece(
  site: Site,
  cable: Cable,
  core: CoreId,
  run: { from: number; to: number; gauge: Cable['gauge'] },
  index: number,
): Cable {
  const stops = cable.stops.slice(run.from, run.to + 1)
  const inner = new Set<string>(stops.slice(1, -1).map((s) => s.id))
  const record = getOrThrow(cable.cores, core)
  const within = <T>(of: Readonly<Record<string, T>>, until: number) =>
    Object.fromEntries(Object.entries(of).filter(([s]) => stops.slice(0, until).some((x) => x.id === s)))
  const [start, end] = [stopPositions_m(cable)[run.from]!.value, stopPositions_m(cable)[run.to]!.value]
  return {
    ...cable,
    bends: within(cable.bends, -1),
    marks: cable.marks.filter((m) => m.to_m >= start && m.from_m <= end),
    tag: index === 0 ? cable.tag : freeTag(site, `${cable.tag ?? 'W'}.${index + 1}`),
    gauge: run.gauge,
    stops,
    cores: {
      [core]: {
        ...record,
        gauge: null,
        cutAt: record.cutAt.filter((c) => inner.has(c)),
        conditions: within(record.conditions, -1),
        colourAt: within(record.colourAt, stops.length),
      },
    },
  }
}

const freeTag = (site: Site, tag: string): string | null =>
  tag.length <= 12 && Object.values(site.cables).every((c) => c.tag !== tag) ? tag : null

function rejoined(site: Site, renamed: ReadonlyMap<string, { id: string; core: string }>): Command[] {
  const moved = (end: End): End => {
    const to = end.kind === 'core' ? renamed.get(`${end.cable} ${end.stop} ${end.side}`) : undefined
    return to && end.kind === 'core' ? { ...end, cable: to.id as typeof end.cable } : end
  }
  return entries(site.splices).flatMap(([id, splice]: [string, Splice]): Command[] => {
    const ends = splice.ends.map(moved)
    return ends.some((e, i) => e !== splice.ends[i] && JSON.stringify(e) !== JSON.stringify(splice.ends[i]))
      ? [{ do: 'set', in: 'splices', id, field: 'ends', value: ends }]
      : []
  })
}
