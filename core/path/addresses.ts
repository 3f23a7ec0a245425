import { refusal, type Refusal } from '../refusal'
import {
  byTag,
  entries,
  getOrThrow,
  lookUp,
  outputsOf,
  setField,
  stationsByNumber,
  wiringOf,
  type Command,
  type Device,
  type DeviceId,
  type Output,
  type PathAt,
  type Site,
  type System,
} from '../site'
import { layoutOf } from './layout'
import { wrongLeads } from './leads'
import { coil_A, outputsOn } from './running'

type Decoder = Extract<Device, { kind: 'decoder' }>
type WithSystem = PathAt & { readonly system: System }

const decoderOf = (site: Site, id: DeviceId) => getOrThrow(site.devices, id) as Decoder

/** Numbers that a system has for a decoder, the first of so many in a row where its outputs number on. */
function fits(system: System, taken: ReadonlySet<number>, first: number, count: number): boolean {
  const { from, to, reserved } = system.addresses
  return Array.from({ length: count }, (_, i) => first + i).every(
    (n) => n >= from && n <= to && !reserved.includes(n) && !taken.has(n),
  )
}

/**
 * Decoders of a path in the order in which they get numbers: pump starts first where the system says so, then outward
 * from the controller, and those of one box beside each other.
 */
export function decodersInOrder(site: Site, path: WithSystem): DeviceId[] {
  const layout = layoutOf(site, path)
  const rank = new Map(layout.outward.flatMap((spot, i) => layout.spots[spot]!.decoders.map((d) => [d, i] as const)))
  // The first spot of a box stands for the box, so that two joints of one box do not part its decoders.
  const boxes = new Map<string, number>()
  for (const [device, at] of rank) {
    const { place } = decoderOf(site, device)
    boxes.set(place, Math.min(boxes.get(place) ?? Infinity, at))
  }
  const isPump = (id: DeviceId) => Number(path.system.addresses.pumpsFirst && decoderOf(site, id).drives === 'pump')
  return path.decoders
    .map((d) => d.device)
    .sort(
      (a, b) =>
        isPump(b) - isPump(a) ||
        (boxes.get(decoderOf(site, a).place) ?? Infinity) - (boxes.get(decoderOf(site, b).place) ?? Infinity) ||
        byTag(decoderOf(site, a).tag ?? a, decoderOf(site, b).tag ?? b),
    )
}

/** A decoder and the numbers of its outputs, as they were given out. */
export interface Given {
  readonly decoder: DeviceId
  readonly addresses: readonly number[]
}

/**
 * Gives every decoder that has no number the lowest that is free, so that no two can have one: reserved numbers are
 * left out, and a decoder of several outputs has as many in a row where its system numbers on.
 * @param anew gives out all numbers, also to those that have one
 * @returns what was given, and the decoders for which the system has no number left
 */
export function giveAddresses(site: Site, path: WithSystem, anew = false): { given: Given[]; none: DeviceId[] } {
  const order = decodersInOrder(site, path)
  // A number that a station goes by is kept for the decoder of its valves.
  const stations = anew ? [] : stationsByNumber(site, path.controller)
  const outputs = outputsOn(site, path)
  const taken = new Set(anew ? [] : outputs.flatMap((o) => o.address ?? []))
  const meantFor = (decoder: DeviceId) =>
    outputs
      .filter((o) => o.decoder === decoder)
      .map((o) => stations.find((s) => s.valves.some((v) => o.coils.includes(v)))?.address ?? null)
  const kept = new Set(stations.map((s) => s.address))
  const { from, to, duals } = path.system.addresses
  const [given, none] = [[] as Given[], [] as DeviceId[]]
  for (const decoder of order) {
    const { address, outputs: count } = decoderOf(site, decoder)
    if (!anew && address !== null) continue
    const wanted = duals === 'next' ? count : 1
    const own = meantFor(decoder)
    const others = new Set([...taken, ...[...kept].filter((n) => !own.includes(n))])
    const isFree = (n: number, many: number) => fits(path.system, others, n, many)
    const meant = own[0] ?? null
    let first = meant !== null && isFree(meant, wanted) ? meant : from
    while (first <= to && !isFree(first, wanted)) first++
    const addresses = Array.from({ length: wanted }, (_, i) => first + i)
    if (duals === 'own')
      for (let n = first + 1; n <= to && addresses.length < count; n++) if (isFree(n, 1)) addresses.push(n)
    if (first > to || addresses.length < count) {
      none.push(decoder)
      continue
    }
    for (const n of addresses) taken.add(n)
    given.push({ decoder, addresses })
  }
  return { given, none }
}

/**
 * The changes that put numbers on record. A station whose decoder answered to its number, and that waters what hangs
 * there, goes along.
 */
export function addressCommands(site: Site, { system }: WithSystem, given: readonly Given[]): Command[] {
  const outputs = outputsOf(site)
  return given.flatMap(({ decoder, addresses: [first, ...more] }) => {
    const stations = outputs
      .filter((o) => o.decoder === decoder && o.address !== null)
      .flatMap(({ address, coils }, i) =>
        entries(site.stations).flatMap(([id, s]) => {
          const is = i === 0 ? first! : (more[i - 1] ?? null)
          const isItsOwn = s.address === address && s.valves.some((v) => coils.includes(v))
          return isItsOwn && is !== null && is !== address ? [setField('stations', id, 'address', is)] : []
        }),
      )
    return [
      setField('devices', decoder, 'address', first!),
      ...(system.addresses.duals === 'own' ? [setField('devices', decoder, 'moreAddresses', more)] : []),
      ...stations,
    ]
  })
}

/** What is wrong with the numbers and the decoders of a path, each with its mend in the sentence. */
export function brokenRegister(site: Site, path: WithSystem): Refusal[] {
  const { system } = path
  const { from, to, reserved } = system.addresses
  const name = (id: DeviceId) => decoderOf(site, id).tag ?? id
  const byNumber = new Map<number, Output[]>()
  const wiring = wiringOf(site)
  const broken: Refusal[] = []
  for (const { device, legs } of path.decoders) {
    const at = ['devices', device]
    const { address, outputs } = decoderOf(site, device)
    if (legs === null) broken.push(refusal('decoder_on_one_leg', at, { decoder: name(device) }))
    const first = wiring.pointOf({ kind: 'port', device, port: 'path_1' })
    if (system.polarised === true && legs !== null && legs[0] !== first)
      broken.push(refusal('decoder_turned', at, { decoder: name(device) }))
    if (address === null) broken.push(refusal('decoder_unnumbered', [...at, 'address'], { decoder: name(device) }))
    if (system.outputs !== null && outputs > system.outputs)
      broken.push(
        refusal('decoder_outputs', [...at, 'outputs'], { decoder: name(device), count: outputs, most: system.outputs }),
      )
  }
  for (const output of outputsOn(site, path)) {
    const { address, decoder, coils } = output
    const at = ['devices', decoder, 'address']
    if (system.coilsPerOutput !== null && coils.length > system.coilsPerOutput)
      broken.push(
        refusal('output_coils', ['devices', decoder], {
          decoder: name(decoder),
          count: coils.length,
          most: system.coilsPerOutput,
        }),
      )
    for (const coil of coils) {
      const { coilKind, tag } = getOrThrow(site.devices, coil)
      const named = { decoder: name(decoder), coil: tag ?? coil }
      const isDc = coilKind !== null && lookUp(site.coilKinds, coilKind)?.current === 'dc_latching'
      if (system.acCoilsOnly === true && isDc) broken.push(refusal('coil_dc_on_path', ['devices', coil], named))
      const isHeavy = system.heavyCoil_A !== null && coil_A(site, coil, 'holding') > system.heavyCoil_A
      if (isHeavy && decoderOf(site, decoder).power === 'low')
        broken.push(refusal('coil_heavy', ['devices', decoder, 'power'], named))
    }
    if (address === null) continue
    byNumber.set(address, [...(byNumber.get(address) ?? []), output])
    if (address < from || address > to)
      broken.push(refusal('address_out_of_range', at, { decoder: name(decoder), address, from, to }))
    if (reserved.includes(address)) broken.push(refusal('address_reserved', at, { decoder: name(decoder), address }))
  }
  for (const { decoder, length_m, why } of wrongLeads(site, path, system))
    broken.push(
      refusal(why === 'long' ? 'coil_lead_long' : 'coil_lead_untwisted', ['devices', decoder], {
        decoder: name(decoder),
        length_m,
        most_m: system.coilLead_m ?? 0,
      }),
    )
  for (const [address, its] of byNumber)
    if (its.length > 1)
      broken.push(
        refusal('address_twice', ['devices', its[1]!.decoder, 'address'], {
          address,
          decoders: [...new Set(its.map((o) => name(o.decoder)))].join(', '),
        }),
      )
  return broken
}

/** A line of the order sheet: so many decoders of one kind, with the numbers they are to come with. */
export interface OrderLine {
  readonly outputs: number
  readonly power: Decoder['power']
  readonly drives: Decoder['drives']
  readonly count: number
  readonly addresses: readonly number[]
}

/** What is ordered for a path, kind by kind. */
export function orderSheet(site: Site, path: PathAt): OrderLine[] {
  const lines = new Map<string, { line: Omit<OrderLine, 'count' | 'addresses'>; addresses: number[]; count: number }>()
  for (const { device } of path.decoders) {
    const { outputs, power, drives, address } = decoderOf(site, device)
    const key = `${drives} ${outputs} ${power}`
    const line = lines.get(key) ?? { line: { outputs, power, drives }, addresses: [], count: 0 }
    line.count++
    if (address !== null) line.addresses.push(address)
    lines.set(key, line)
  }
  return [...lines]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([, { line, count, addresses }]) => ({ ...line, count, addresses: addresses.sort((a, b) => a - b) }))
}
