import {
  getOrThrow,
  lookUp,
  type CableId,
  type DeviceId,
  type PathAt,
  type Site,
  type System,
  type SystemId,
} from '../site'
import { countBy } from './count-by'
import { decoderPrices, decodersFor } from './kinds'
import { coresOf, layoutOf } from './layout'
import { wrongLeads, type WrongLead } from './leads'
import { pathMargins } from './sizes'
import type { PathMargin } from './moments'
import { coil_A, outputsOn } from './running'

/** Decoders of one kind that another system wants. */
export interface WantedDecoders {
  readonly outputs: number
  readonly power: 'low' | 'high'
  readonly count: number
}
/** What a path would need if its controller spoke another system. Lists are empty where nothing is to be done. */
export interface SystemChange {
  /** Decoders that go: all of them. Two systems never share a path. */
  readonly out: number
  readonly wanted: readonly WantedDecoders[]
  readonly cents: number | null
  /** Coils that it cannot run. */
  readonly coils: readonly DeviceId[]
  /** Outputs with more coils than one of its outputs runs: each coil beyond wants an output of its own. */
  readonly crowded: readonly DeviceId[]
  /** Leads from decoder to coil that are too long, or no twisted pair where it wants one. */
  readonly leads: readonly WrongLead[]
  /** Cables of the path that it does not allow. */
  readonly cables: readonly CableId[]
  /** Path joints by a connector that it does not name. */
  readonly joints: number
  /** Numbers that are wanted beyond those it has. */
  readonly numbersShort: number
  /** The weakest at its worst under the other system; null where its sheet lacks a figure. */
  readonly weakest: PathMargin | null
  readonly tooLow: number
}

/**
 * What it takes to change the make of a path’s controller: every decoder goes, so they are counted first, box by box
 * with as many outputs as the other system has; then whatever of coils, leads, cables and joints does not suit it.
 */
export function changeSystem(site: Site, path: PathAt, target: System): SystemChange {
  const outputs = outputsOn(site, path)
  const most = target.outputs ?? 1
  const perOutput = target.coilsPerOutput ?? 1
  const byBox = new Map<string, { low: number; high: number }>()
  const isHeavy = (coil: DeviceId) => target.heavyCoil_A !== null && coil_A(site, coil, 'holding') > target.heavyCoil_A
  for (const { decoder, coils } of outputs) {
    if (coils.length === 0) continue
    const { place } = getOrThrow(site.devices, decoder)
    const power = coils.some(isHeavy) ? 'high' : 'low'
    const box = byBox.get(place) ?? { low: 0, high: 0 }
    byBox.set(place, { ...box, [power]: box[power] + Math.ceil(coils.length / perOutput) })
  }
  const prices = decoderPrices(site)
  const kinds = [...byBox.values()].flatMap(({ low, high }) => [
    ...decodersFor(low, most, prices).map((k) => ({ outputs: k, power: 'low' as const })),
    ...decodersFor(high, most, prices).map((k) => ({ outputs: k, power: 'high' as const })),
  ])
  const wanted = [...countBy(kinds, (k) => `${k.outputs} ${k.power}`).values()]
    .map(({ one, count }) => ({ ...one, count }))
    .sort((a, b) => b.outputs - a.outputs || (a.power < b.power ? 1 : -1))
  const cents = kinds.reduce<number | null>(
    (sum, k) => {
      const price = prices.get(k.outputs)
      return sum === null || price === undefined ? null : sum + price
    },
    prices.size > 0 ? 0 : null,
  )
  const isDc = (coil: DeviceId) => {
    const { coilKind } = getOrThrow(site.devices, coil)
    return coilKind !== null && lookUp(site.coilKinds, coilKind)?.current === 'dc_latching'
  }
  const layout = layoutOf(site, path)
  const cables = [...new Set(layout.legs.map((l) => l.cable))].filter(
    (id) => target.cable === 'twisted' && getOrThrow(site.cables, id).kind !== 'twisted_pair',
  )
  const { from, to, reserved } = target.addresses
  const numbers = to - from + 1 - reserved.filter((n) => n >= from && n <= to).length
  const inUse = kinds.reduce((sum, k) => sum + k.outputs, 0)
  const margins = underSystem(site, path, target)
  return {
    out: path.decoders.length,
    wanted,
    cents,
    coils: target.acCoilsOnly === true ? outputs.flatMap((o) => o.coils).filter(isDc) : [],
    crowded: outputs.filter((o) => o.coils.length > perOutput).map((o) => o.decoder),
    leads: wrongLeads(site, path, target),
    cables,
    joints: wrongJoints(site, path, target),
    numbersShort: Math.max(0, inUse - numbers),
    weakest: margins?.[0] ?? null,
    tooLow: margins?.filter((m) => m.margin_V < 0).length ?? 0,
  }
}

function wrongJoints(site: Site, path: PathAt, { joints }: System): number {
  if (joints.length === 0) return 0
  const allowed = new Set<string>(joints)
  const onPath = coresOf(layoutOf(site, path))
  return Object.values(site.splices).filter(
    ({ connector, ends }) =>
      ends.length > 1 &&
      connector !== 'terminal' &&
      !allowed.has(connector) &&
      ends.some((e) => e.kind === 'core' && onPath.has(`${e.cable}/${e.core}`)),
  ).length
}

/** The margins of a path as it would be with another system on its controller. */
function underSystem(site: Site, path: PathAt, target: System): readonly PathMargin[] | null {
  const id = path.systemId ?? ('as_if' as SystemId)
  const controller = { ...getOrThrow(site.controllers, path.controller), system: id }
  const next: Site = {
    ...site,
    systems: { ...site.systems, [id]: target },
    controllers: { ...site.controllers, [path.controller]: controller },
  }
  const margins = pathMargins(next, { ...path, systemId: id, system: target })
  return margins.ok ? margins.value : null
}
