import { coilJoints, huntContextOf } from '../../core/hunt'
import type { FieldTest, ReadingValue } from '../../core/record'
import {
  getOrThrow,
  terminalEnd,
  type Cable,
  type DeviceId,
  type End,
  type PlaceId,
  type Site,
  type SpliceId,
  type TerminalId,
} from '../../core/site'
import { A } from './draw-fault'

/** What a procedure is given to work with: it asks, and is answered and charged. */
export interface Asking {
  readonly ask: (test: FieldTest) => ReadingValue
}
export type Ended =
  { readonly kind: 'named'; readonly key: string } | { readonly kind: 'nothing' } | { readonly kind: 'undecided' }

const at = (t: TerminalId) => terminalEnd(A, t) as Extract<End, { kind: 'terminal' }>
const ohmsOf = (v: ReadingValue): number => (v.kind === 'ohm' ? v.ohm : Infinity)
const voltsOf = (v: ReadingValue): number => (v.kind === 'volt' ? v.volt : 0)
/** A thread that reads within this of what it should passes. */
const [PASSES_LOW, PASSES_HIGH] = [0.82, 1.18]
/** More than this is as good as open; two threads round C read less than the other together. */
const [OPEN_ohm, ROUND_C_ohm] = [100, 150]

/**
 * The order of work that most crews know (docs/outward.md): supply, volts and ohms of the dead terminals only; for a
 * set of dead stations the boxes either side of the break; for one the valve box, its coil, its joints, then the
 * lead.
 */
export function outward(site: Site, symptoms: ReadonlyMap<TerminalId, ReadingValue>, { ask }: Asking): Ended {
  const context = huntContextOf(site, A)!
  const named = (key: string): Ended => ({ kind: 'named', key })
  const stations = [...symptoms.keys()]
  const valveOf = (t: TerminalId) => `V${t}` as DeviceId
  const watered = (t: TerminalId): readonly DeviceId[] => {
    const v = symptoms.get(t)!
    return v.kind === 'waters' ? v.valves : []
  }
  const dead = stations.filter((t) => !watered(t).includes(valveOf(t)))
  const pair = (a: TerminalId, b: TerminalId) => named(`pair A ${[a, b].sort().join(' ')}`)
  const terminalOf = (d: DeviceId) => stations.find((t) => valveOf(t) === d)!

  // What the symptoms say by themselves: a wrong zone, the same extra zone with every station, two zones together.
  const extra = stations.map((t) => watered(t).filter((d) => d !== valveOf(t)))
  const always = extra[0]?.find((d) => extra.filter((e) => e.includes(d)).length >= stations.length - 1)
  if (always) return named(`valve ${always}`)
  for (const t of dead)
    for (const d of watered(t))
      if (watered(terminalOf(d)).includes(valveOf(t)) && !watered(terminalOf(d)).includes(d))
        return pair(t, terminalOf(d))
  for (const t of stations)
    for (const d of watered(t))
      if (d !== valveOf(t)) {
        const other = terminalOf(d)
        return dead.includes(other) && !dead.includes(t) ? pair(t, other) : touchKey(t, other)
      }
  if (dead.length === 0) return { kind: 'nothing' }

  if (voltsOf(ask({ kind: 'supply', controller: A })) < 15) return named('supply A')
  const first = dead[0]!
  const all = dead.length === stations.length
  if (voltsOf(ask({ kind: 'volts', at: at(first) })) < 12) {
    if (!all) return named(`terminal A ${first}`)
    return voltsOf(ask({ kind: 'volts', at: at('MV' as TerminalId) })) < 12
      ? named('sensor A')
      : named(`terminal A ${first}`)
  }
  if (all) {
    // A common cut before the first box looks like a dead master: its lead against a station's goes round C.
    const [master, home] = [
      ohmsOf(ask({ kind: 'ohms', from: at('MV' as TerminalId), to: at('C' as TerminalId) })),
      ohmsOf(ask({ kind: 'ohms', from: at(first), to: at('C' as TerminalId) })),
    ]
    const cut =
      master > OPEN_ohm &&
      home > OPEN_ohm &&
      ohmsOf(ask({ kind: 'ohms', from: at('MV' as TerminalId), to: at(first) })) < ROUND_C_ohm
        ? commonCut([first])
        : null
    const ended = cut ?? thread('MV' as TerminalId, 'MV' as DeviceId)
    if (ended) return ended
  }
  const readings = dead
    .slice(0, all ? 2 : dead.length)
    .map((t) => [t, ohmsOf(ask({ kind: 'ohms', from: at(t), to: at('C' as TerminalId) }))] as const)
  const open = readings.filter(([, ohm]) => ohm > OPEN_ohm).map(([t]) => t)
  // Round C: a lead that reads against another though both are open to C has a common that is cut.
  if (open.length >= 2 && ohmsOf(ask({ kind: 'ohms', from: at(open[0]!), to: at(open[1]!) })) < ROUND_C_ohm) {
    const cut = commonCut(open)
    if (cut) return cut
  }
  return thread(first, valveOf(first)) ?? { kind: 'undecided' }

  /**
   * The common between the last good and the first open box along its route: the joints at both ends, then the wire.
   */
  function commonCut(open: readonly TerminalId[]): Ended | null {
    const boxOf = (t: TerminalId) => getOrThrow(site.devices, valveOf(t)).place
    const cables = Object.entries(site.cables).filter(([, c]) => Object.hasOwn(c.cores, 'white'))
    for (const [cable, c] of cables) {
      const boxes = c.stops.map((s) => s.place)
      const firstOpen = boxes.findIndex((b) => open.some((t) => boxOf(t) === b))
      if (firstOpen < 1) continue
      // Contiguous to the end of this run.
      if (!boxes.slice(firstOpen).every((b) => stations.filter((t) => boxOf(t) === b).every((t) => dead.includes(t))))
        continue
      const joint = (b: PlaceId) =>
        Object.keys(site.splices).find((s) => {
          const j = getOrThrow(site.splices, s)
          return (
            j.place === b && j.connector !== 'terminal' && j.ends.some((e) => e.kind === 'core' && e.core === 'white')
          )
        }) as SpliceId | undefined
      const here = joint(boxes[firstOpen]!)
      if (here && !sound(here)) return named(`joint ${here}`)
      const before = joint(boxes[firstOpen - 1]!)
      if (before && !sound(before)) return named(`joint ${before}`)
      const t = stations.find((s) => boxOf(s) === boxes[firstOpen]!)!
      // The incoming end by itself: good means the joint here is bad though it looks sound.
      if (ohmsOf(ask({ kind: 'loop_common', device: valveOf(t) })) < 100 && here) return named(`joint ${here}`)
      // Before anybody digs, the joint at the other end is cut out and made anew.
      const remade = before && ask({ kind: 'remake', splice: before })
      return before && remade?.kind === 'looked' && !remade.sound
        ? named(`joint ${before}`)
        : named(`run ${cable} white ${c.stops[firstOpen - 1]!.id} ${c.stops[firstOpen]!.id}`)
    }
    return null
  }
  function sound(splice: SpliceId): boolean {
    const v = ask({ kind: 'look', splice })
    return v.kind === 'looked' && v.sound
  }

  /** One thread from its valve inward; null where nothing is wrong with it. */
  function thread(terminal: TerminalId, valve: DeviceId): Ended | null {
    const expected = coilOhm(valve) + 3
    const cabinet = ohmsOf(ask({ kind: 'ohms', from: at(terminal), to: at('C' as TerminalId) }))
    if (cabinet > PASSES_LOW * expected && cabinet < PASSES_HIGH * expected + 2) {
      if (valve === 'MV') return null
      const water = ask({ kind: 'by_hand', device: valve })
      return water.kind === 'flows' && !water.flows ? named(`valve ${valve}`) : null
    }
    const coil = ohmsOf(ask({ kind: 'coil_ohms', device: valve }))
    if (coil < PASSES_LOW * coilOhm(valve) || coil > PASSES_HIGH * coilOhm(valve)) return named(`coil ${valve}`)
    const joints = coilJoints(context, valve)
    const [lead, home] = [joints.lead?.splice, joints.home?.splice]
    if (lead && !sound(lead)) return named(`joint ${lead}`)
    if (home && !sound(home)) return named(`joint ${home}`)
    const loop = ohmsOf(ask({ kind: 'loop_lead', device: valve }))
    if (loop < 12 && lead) return named(`joint ${lead}`)
    // The bare lead does not come back: the lead itself, or the way home; the bare common tells which.
    if (home && ohmsOf(ask({ kind: 'loop_common', device: valve })) < 100) return named(`joint ${home}`)
    const run = context.walk(terminal).runs.find((r) => r.link.kind === 'stretch')
    if (run?.link.kind !== 'stretch') return null
    const cable = getOrThrow(site.cables, run.link.cable)
    const to = cable.stops.findIndex((s) => s.place === getOrThrow(site.devices, valve).place)
    // The common's own tap at this valve if the bare common reads bad too.
    return cabinet < PASSES_LOW * expected
      ? touchKeyWith(cable, run.link.cable, run.link.core, to)
      : named(`run ${run.link.cable} ${run.link.core} ${cable.stops[0]!.id} ${cable.stops[to]!.id}`)
  }
  function coilOhm(valve: DeviceId): number {
    return getOrThrow(site.coilKinds, getOrThrow(site.devices, valve).coilKind!).resistance_ohm
  }
  function touchKeyWith({ stops }: Cable, cable: string, core: string, to: number): Ended {
    return named(`touch ${cable} ${[core, 'white'].sort().join(' ')} ${stops[to - 1]!.id} ${stops[to]!.id}`)
  }
  function touchKey(one: TerminalId, two: TerminalId): Ended {
    const cable = Object.entries(site.cables).find(
      ([, c]) => Object.hasOwn(c.cores, `c${one}`) && Object.hasOwn(c.cores, `c${two}`),
    )
    if (!cable) return { kind: 'undecided' }
    const to = Math.min(
      ...[one, two].map((t) => cable[1].stops.findIndex((s) => s.place === getOrThrow(site.devices, valveOf(t)).place)),
    )
    const { stops } = cable[1]
    return named(`touch ${cable[0]} ${[`c${one}`, `c${two}`].sort().join(' ')} ${stops[0]!.id} ${stops[to]!.id}`)
  }
}
