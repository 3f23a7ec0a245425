import { closings, coilImpedance, type Edit, type Powered, type TerminalAt } from '../circuit'
import { entries, getOrThrow, netsOf, type DeviceId, type End } from '../site'
import type { Load, Start } from './load'

/** A moment of the schedule: one station starts while others run. */
export interface Moment {
  readonly starter: Start
  readonly others: readonly Start[]
}

/** What is energised at a moment, each with its face: what starts, the masters with it, and what runs. */
export function loadsAt({ starter, others }: Moment, holding: (start: Start) => readonly Load[]): Load[] {
  return [...starter.starting, ...starter.masters, ...others.flatMap((o) => holding(o))]
}

/**
 * A moment as edits of the powered network, in which every coil's plunger is out and sequencers stand at their first
 * output.
 */
export function editsAt(
  powered: Powered,
  moment: Moment,
  loads: readonly Load[],
  masterTerminals: readonly TerminalAt[],
): Edit[] {
  const {
    site,
    conditions: { phase, frequency_Hz, climate },
  } = powered
  const live = [moment.starter.at, ...moment.others.map((o) => o.at), ...masterTerminals]
  const edits: Edit[] = closings(
    powered,
    live.filter((t, i) => live.findIndex((l) => l.controller === t.controller && l.terminal === t.terminal) === i),
  )
  powered.parts.forEach(({ of }, element) => {
    if (of.kind !== 'coil' || loads.find((l) => l.device === of.device)?.face !== 'holding') return
    const { coilKind } = getOrThrow(site.devices, of.device)
    edits.push({
      kind: 'element',
      element,
      z: coilImpedance(
        coilKind === null ? null : getOrThrow(site.coilKinds, coilKind),
        'holding',
        phase,
        frequency_Hz,
        climate.coil_C,
      ),
    })
  })
  return [
    ...edits,
    ...turns(
      powered,
      loads.map((l) => l.device),
    ),
  ]
}

/** Sequencers turned to the outputs that lead to these coils. */
function turns(powered: Powered, devices: readonly DeviceId[]): Edit[] {
  const { site, wiring, parts } = powered
  const nets = netsOf(wiring)
  const edits: Edit[] = []
  const coilNets = parts.flatMap(({ of }) =>
    of.kind === 'coil' && devices.includes(of.device) ? [nets.of(of.a), nets.of(of.b)] : [],
  )
  for (const [device, record] of entries(site.devices)) {
    if (record.kind !== 'sequencer') continue
    const point = (port: string) => wiring.pointOf({ kind: 'port', device, port } as End)
    const turn = Array.from({ length: record.outputs - 1 }, (_, i) => i + 2).find((n) =>
      coilNets.includes(nets.of(point(`out_${n}`))),
    )
    const contact = parts.findIndex(({ of }) => of.kind === 'contact' && of.device === device)
    const [a, b] = [
      powered.nodeOf.get(point('in')),
      turn === undefined ? undefined : powered.nodeOf.get(point(`out_${turn}`)),
    ]
    if (a !== undefined && b !== undefined && contact >= 0)
      edits.push({ kind: 'open', element: contact }, { kind: 'bridge', a, b, ohm: 0 })
  }
  return edits
}
