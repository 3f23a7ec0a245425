import loadHighs from 'highs'
import type * as z from 'zod'
import type { Property } from '../core/formats'
import {
  arrestorsOf,
  brokenRegister,
  convert,
  kindsOf,
  knownPath,
  orderSheet,
  outputsAnswering,
  pathReach,
  pathVolts,
  sizePath,
  worstFor,
  type Conversion,
  type KindsPlan,
  type LoadModel,
  type PathSizing,
  type PathVolts,
} from '../core/path'
import { gaugeText } from '../core/quantity'
import { accepted, refusal, refused, type Outcome } from '../core/refusal'
import { choiceSolver } from '../core/sizing'
import {
  entries,
  getOrThrow,
  pathsOf,
  type DeviceId,
  type PathAt,
  type PlaceId,
  type Site,
  type System,
} from '../core/site'
import { sayRefusal, type Speaker } from '../words'
import type { Arguments } from './flags'
import type { pathOutput } from './output'

type Flags = Arguments['flags']
type Out = z.infer<typeof pathOutput>

/** A two-wire path: volts with any outputs on by both ways of taking a load, its register, arrestors, a conversion. */
export async function pathIn({ site }: Property, flags: Flags, speaker: Speaker): Promise<Outcome<Out>> {
  const chosen = chosenPath(site, flags.controller)
  if (!chosen.ok) return chosen
  const path = chosen.value
  const known = knownPath(path)
  if (!known.ok) return known
  const { system } = known.value
  const on = outputsAnswering(site, path, numbersIn(site, path, flags.on))
  if (!on.ok) return on
  const volts = (model: LoadModel) => pathVolts(site, path, model, on.value, conditionsIn(site, flags))
  const [current, impedance] = [volts('constant_current'), volts('constant_impedance')]
  if (!current.ok) return current
  if (!impedance.ok) return impedance
  const converted = flags.convert === undefined ? accepted(null) : convertedIn(site, system, flags.convert)
  if (!converted.ok) return converted
  const sized = flags.size
    ? sizePath(site, path, choiceSolver(await loadHighs()), { anew: flags.anew })
    : accepted(null)
  if (!sized.ok) return sized
  const heaviest_A = Math.max(0, ...current.value.coils.map((c) => c.current_A))
  return accepted({
    verb: 'path',
    property: site.about.name,
    controller: getOrThrow(site.controllers, path.controller).tag,
    system: system.name,
    on: [...new Set(on.value.map((o) => o.output.address!))],
    constant_current: voltsOut(site, current.value),
    constant_impedance: voltsOut(site, impedance.value),
    register: brokenRegister(site, { ...path, system }).map((r) => ({ code: r.code, says: sayRefusal(r, speaker) })),
    order: orderSheet(site, path).map((l) => ({ ...l, addresses: [...l.addresses] })),
    reach: (pathReach(site, system, { decoders: path.decoders.length, on: 1, coils_A: heaviest_A }) ?? []).map((r) => ({
      gauge: gaugeText(r.gauge),
      reach_m: r.reach_m,
    })),
    ...(flags.arrestors && { arrestors: arrestorsOut(site, { ...path, system }) }),
    kinds: kindsOut(kindsOf(site, { ...path, system })),
    ...(converted.value && { conversion: converted.value }),
    ...(sized.value && { sizes: sizesOut(site, sized.value) }),
  })
}

const kindsOut = ({ now, best, byPrice }: KindsPlan): Out['kinds'] => ({ now: { ...now }, best: { ...best }, byPrice })

function sizesOut(site: Site, sized: PathSizing): NonNullable<Out['sizes']> {
  const weakest = 'weakest' in sized ? sized.weakest : null
  return {
    answer: sized.kind,
    weakest: weakest && {
      device: tagOf(site, weakest.device),
      volt_V: weakest.volt_V,
      minimum_V: weakest.minimum_V,
      margin_V: weakest.margin_V,
    },
    ...(sized.kind === 'sized' && {
      cost_cents: sized.cost_cents,
      bound_cents: sized.bound_cents,
      sizes: sized.groups.map((g, i) => ({
        cable: getOrThrow(site.cables, g.cable).tag ?? g.cable,
        gauge: gaugeText(sized.stock[sized.chosen[i]!]!.gauge),
        length_m: g.length_m,
      })),
    }),
  }
}

/** The path of the controller that is named, or the only one. */
function chosenPath(site: Site, tag: string | undefined): Outcome<PathAt> {
  const all = pathsOf(site)
  const named = all.filter((p) => tag === undefined || getOrThrow(site.controllers, p.controller).tag === tag)
  if (named.length === 1) return accepted(named[0]!)
  const options = all.map((p) => getOrThrow(site.controllers, p.controller).tag).join(', ')
  return refused(refusal(all.length === 0 ? 'no_path' : 'which_path', ['--controller'], { tag: tag ?? '', options }))
}

/** Numbers as they were written, `12` or `D:12`; NaN for what is none, which no decoder answers to. */
const numbersIn = (site: Site, path: PathAt, on: string | undefined): number[] =>
  (on ?? '')
    .split(',')
    .map((t) => t.trim())
    .filter((t) => t !== '')
    .map((t) => {
      const number = t.replace(`${getOrThrow(site.controllers, path.controller).tag}:`, '')
      return /^\d{1,4}$/.test(number) ? Number(number) : NaN
    })

const conditionsIn = (site: Site, flags: Flags) =>
  flags.worst
    ? worstFor(site)
    : { mains_ratio: flags.mains, phase: flags.phase, ...(flags.ground !== undefined && { ground_C: flags.ground }) }

const tagOf = (site: Site, id: DeviceId) => getOrThrow(site.devices, id).tag ?? id
const placeTag = (site: Site, id: PlaceId) => getOrThrow(site.places, id).tag

function voltsOut(site: Site, { decoders, coils, stretches, line_A, terminal_V }: PathVolts): Out['constant_current'] {
  return {
    line_A,
    terminal_V,
    decoders: decoders.map(({ decoder, ...rest }) => {
      const device = getOrThrow(site.devices, decoder)
      return { decoder: tagOf(site, decoder), address: device.address, place: placeTag(site, device.place), ...rest }
    }),
    coils: coils.map(({ coil, decoder, ...rest }) => ({
      coil: tagOf(site, coil),
      decoder: tagOf(site, decoder),
      ...rest,
    })),
    stretches: stretches.map(({ link, volt_V, current_A }) => {
      const cable = getOrThrow(site.cables, link.cable)
      const at = (stop: number) => placeTag(site, cable.stops[stop]!.place)
      return {
        cable: cable.tag ?? link.cable,
        core: link.core,
        from: at(link.from),
        to: at(link.to),
        volt_V,
        current_A,
      }
    }),
  }
}

function arrestorsOut(site: Site, path: PathAt & { readonly system: System }): NonNullable<Out['arrestors']> {
  const { now, breaches, more, fewest, impossible, rules } = arrestorsOf(site, path)
  const tags = (places: readonly PlaceId[]) => places.map((p) => placeTag(site, p))
  return {
    ...rules,
    now: tags(now),
    breaches: breaches.length,
    more: tags(more),
    fewest: tags(fewest),
    impossible: impossible.length,
  }
}

function convertedIn(site: Site, system: System, tag: string): Outcome<NonNullable<Out['conversion']>> {
  const cable = entries(site.cables).find(([id, c]) => c.tag === tag || id === tag)
  if (!cable) return refused(refusal('no_such_cable', ['--convert'], { tag }))
  return accepted(conversionOut(site, convert(site, cable[0], system)))
}

const conversionOut = (site: Site, c: Conversion): NonNullable<Out['conversion']> => ({
  cable: getOrThrow(site.cables, c.cable).tag ?? c.cable,
  legs: [[...c.legs[0]], [...c.legs[1]]],
  out: c.out.map((o) => ({ ...o })),
  leg_ohm: [...c.leg_ohm],
  loop_ohm: c.loop_ohm,
  decoders: c.decoders,
  far_V: c.far_V,
  obstacles: c.obstacles.map((o) => o.kind),
  boxes: c.boxes.map((b) => ({
    place: placeTag(site, b.place),
    at_m: b.at_m,
    ends: [...b.ends],
    connectors: b.joints.map((j) => j?.made.map((m) => m.connector.kind) ?? null) as [string[] | null, string[] | null],
    loop_ohm: b.loop_ohm,
  })),
})

/** The same as lines for a person: the weakest first. */
export const pathLines = (o: Out): string[] => [
  `${o.controller}: ${o.system}, ${o.constant_current.line_A.toFixed(3)} A on the line, ` +
    `${o.constant_current.terminal_V.toFixed(2)} V at its screws`,
  ...o.constant_current.decoders.map((d, i) => {
    const other = o.constant_impedance.decoders.find((e) => e.decoder === d.decoder)
    const name = `${d.decoder.padEnd(8)} ${String(d.address ?? '–').padEnd(5)} ${d.place.padEnd(6)}`
    const weak = `${d.enough ? '' : '  too low'}${i === 0 ? '  weakest' : ''}`
    return `${name} ${d.volt_V.toFixed(2)} V (${other?.volt_V.toFixed(2)} V)${weak}`
  }),
  ...o.constant_current.coils.map((c) => {
    const gets = `${c.volt_V.toFixed(2)} V, ${c.current_A.toFixed(3)} A`
    return `${c.coil.padEnd(8)} behind ${c.decoder}: ${gets}${c.enough ? '' : '  too low'}`
  }),
  ...o.register.map((r) => r.says),
  ...(o.arrestors ? [arrestorsLine(o.arrestors)] : []),
  ...(o.sizes ? [sizesLine(o.sizes)] : []),
  ...(o.conversion ? [conversionLine(o.conversion)] : []),
]

const arrestorsLine = ({ now, more, fewest }: NonNullable<Out['arrestors']>): string => {
  const wanted = more.length === 0 ? 'no more wanted' : `more at ${more.join(' ')}`
  return `Arrestors: at ${now.join(' ') || 'no box'}; ${wanted}; from nothing ${fewest.length}: ${fewest.join(' ')}`
}

function sizesLine({ answer, sizes, cost_cents, bound_cents, weakest }: NonNullable<Out['sizes']>): string {
  if (!sizes) return `Sizes: ${answer}${weakest ? `, ${weakest.device} lacks ${(-weakest.margin_V).toFixed(2)} V` : ''}`
  const proven = bound_cents === cost_cents ? ', proven least' : ''
  return `Sizes: ${sizes.map((g) => `${g.cable} ${g.gauge}`).join(', ')}; ${(cost_cents! / 100).toFixed(2)}${proven}`
}

const conversionLine = ({ cable, legs, loop_ohm, obstacles }: NonNullable<Out['conversion']>): string => {
  const not = obstacles.length > 0 ? `; not: ${obstacles.join(', ')}` : ''
  return `${cable}: ${legs.map((l) => l.join(' + ')).join(' against ')}, loop ${loop_ohm.toFixed(2)} Ω${not}`
}
