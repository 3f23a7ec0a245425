import { Draft, type Site } from '../core/site'
import { seeded } from './random-site'

/** A plan in plain figures, for the product through `siteOf` and for a search that knows nothing of it. */
export interface Plan {
  readonly seed: number
  /** Boxes in order along each run, metres from the cabinet. */
  readonly runs: readonly (readonly number[])[]
  readonly jacket: boolean
  readonly stations: readonly {
    readonly run: number
    readonly box: number
    readonly inrush_A: number
    readonly holding_A: number
    readonly minimum_V: number
  }[]
  /** The master valve's box, on the first run, and its currents; null for none. */
  readonly master: { readonly box: number; readonly inrush_A: number; readonly holding_A: number } | null
  readonly relay_A: number
  readonly masterFirst: boolean
  readonly open_V: number
  readonly rating_VA: number
  readonly hottest_C: number
  readonly cents_per_m: readonly number[]
}

export const PLAN_SIZES_AWG = [18, 16, 14, 12, 10] as const

/** A plan with at most `choices` free sizes, on the edge of what the sizes can carry. */
export function randomPlan(seed: number, choices = 8): Plan {
  const random = seeded(seed * 31 + 5)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const jacket = random() < 0.25
  const reach = 250 + random() * (random() < 0.3 ? 3500 : 900)
  const runs = Array.from({ length: random() < 0.3 ? 2 : 1 }, () => {
    let at = 0
    return Array.from({ length: 1 + Math.floor(random() * 2) }, () =>
      Math.round((at += (reach * (0.3 + 0.5 * random())) / 2)),
    )
  })
  const master = random() < 0.6 ? { box: 0, inrush_A: pick([0.25, 0.4, 0.6]), holding_A: pick([0.12, 0.19]) } : null
  const taken =
    (jacket ? 1 : runs[0]!.length) + runs.slice(1).reduce((n, r) => n + r.length, 0) + (master && !jacket ? 1 : 0)
  const stations = Array.from({ length: Math.max(1, Math.min(6, choices - taken)) }, () => {
    const run = Math.floor(random() * runs.length)
    return {
      run,
      box: Math.floor(random() * runs[run]!.length),
      inrush_A: pick([0.25, 0.4, 0.55]),
      holding_A: 0.2,
      minimum_V: pick([18, 19]),
    }
  })
  return {
    seed,
    runs,
    jacket,
    stations,
    master,
    relay_A: master && random() < 0.3 ? 0.1 : 0,
    masterFirst: random() < 0.4,
    open_V: 26 + 3 * random(),
    rating_VA: pick([40, 60, 100]),
    hottest_C: pick([20, 30, 45]),
    cents_per_m: [9, 14, 22, 36, 57].map((c) => c * (0.9 + 0.2 * random())),
  }
}

/** The plan as a property: runs of single conductors, or the first run one multi-core; every size open. */
export function siteOf(plan: Plan): Site {
  const draft = new Draft(`plan ${plan.seed}`)
    .setting('V_open_V', plan.open_V)
    .setting('soundSplice_ohm', 0)
    .setting('sizing', { hottest_C: plan.hottest_C })
    .setting('material', {
      stock: PLAN_SIZES_AWG.map((awg, i) => ({ gauge: { awg }, cents_per_m: plan.cents_per_m[i]! })),
    })
    .place('A', 'cabinet')
    .controller('A', 'A', plan.stations.length, {
      transformer: { rating_VA: plan.rating_VA },
      masterFirst: plan.masterFirst,
    })
  const box = (run: number, b: number) => `R${run}B${b}`
  plan.runs.forEach((boxes, run) => boxes.forEach((_, b) => draft.place(box(run, b))))
  const stopsTo = (run: number, last: number): [string, number][] => [
    ['A', 0],
    ...plan.runs[run]!.slice(0, last + 1).map((at, b): [string, number] => [box(run, b), at]),
  ]
  const inJacket = (run: number) => plan.jacket && run === 0
  const taps = new Map<string, string[]>()
  const tap = (at: string, port: string) => taps.set(at, [...(taps.get(at) ?? []), port])
  const leadTo = (name: string, terminal: string, run: number, b: number, port: string) => {
    const core = inJacket(run) ? `K0.${name}` : `L${name}.red`
    if (!inJacket(run)) draft.cable(`L${name}`, { gauge: null, kind: 'single', stops: stopsTo(run, b), cores: ['red'] })
    draft
      .join('A', [terminal, `${core}>`, ...(name === 'M' && plan.relay_A > 0 ? ['PR.a'] : [])])
      .join(box(run, b), [`${core}<`, port])
  }
  plan.runs.forEach((boxes, run) =>
    draft.cable(`K${run}`, {
      gauge: null,
      kind: inJacket(run) ? 'multicore' : 'single',
      stops: stopsTo(run, boxes.length - 1),
      cores: [
        'white',
        ...(inJacket(run)
          ? [...(plan.master ? ['M'] : []), ...plan.stations.flatMap((s, i) => (s.run === 0 ? [`s${i + 1}`] : []))]
          : []),
      ],
    }),
  )
  if (plan.master) {
    draft
      .coilKind('kM', 20, { inrush_A: plan.master.inrush_A, holding_A: plan.master.holding_A, minimum_V: 19 })
      .valve('MV', box(0, 0), 'kM')
    if (plan.relay_A > 0)
      draft
        .coilKind('kR', 60, { inrush_A: plan.relay_A, holding_A: plan.relay_A / 2, minimum_V: 19 })
        .device('PR', 'relay', 'A', 'kR')
    leadTo('M', 'A:MV', 0, 0, 'MV.a')
    tap(box(0, 0), 'MV.b')
    draft.pointOfConnection('P', {
      name: 'Supply',
      masterValve: 'MV',
      pumpRelay: plan.relay_A > 0 ? 'PR' : null,
      terminal: { controller: 'A', terminal: 'MV' },
    })
  }
  plan.stations.forEach((s, i) => {
    const n = i + 1
    draft
      .coilKind(`k${n}`, 20, { inrush_A: s.inrush_A, holding_A: s.holding_A, minimum_V: s.minimum_V })
      .valve(`V${n}`, box(s.run, s.box), `k${n}`)
      .station(`A:${n}`, `Station ${n}`, [`V${n}`], { pointOfConnection: plan.master ? 'P' : null })
    leadTo(`s${n}`, `A:${n}`, s.run, s.box, `V${n}.a`)
    tap(box(s.run, s.box), `V${n}.b`)
  })
  draft.join('A', ['A:C', ...plan.runs.map((_, run) => `K${run}.white>`), ...(plan.relay_A > 0 ? ['PR.b'] : [])])
  plan.runs.forEach((boxes, run) =>
    boxes.forEach((_, b) =>
      draft.join(
        box(run, b),
        [`K${run}.white<`, ...(taps.get(box(run, b)) ?? []), ...(b < boxes.length - 1 ? [`K${run}.white>`] : [])],
        'nut_and_gel_tube',
      ),
    ),
  )
  return draft.site()
}

export interface Searched {
  readonly cost_cents: number | null
  readonly tried: number
}

/**
 * The cheapest sizes by trying them all, with the model written out from the plan alone: constant currents, drops
 * added, every coil at every start. Null where none holds. `holds` may refuse sizes for a reason of its own.
 */
export function searchAll(plan: Plan): Searched {
  const warm = 1 + 0.00393 * (plan.hottest_C - 20)
  const ohmPerM = PLAN_SIZES_AWG.map(
    (awg) => (warm * 0.017241) / ((Math.PI / 4) * (0.127 * 92 ** ((36 - awg) / 39)) ** 2),
  )
  const supply = 0.9 * plan.open_V
  const source_ohm = (plan.open_V - 24) / (plan.rating_VA / 24)
  // Free choices in order: the jacket or the stretches of each run's common, then the leads.
  const lengths: number[] = []
  const commonOf: number[][] = plan.runs.map((boxes, run) => {
    if (plan.jacket && run === 0) {
      lengths.push(boxes.at(-1)! * (1 + (plan.master ? 1 : 0) + plan.stations.filter((s) => s.run === 0).length))
      return boxes.map(() => 0)
    }
    // A common cut in every box; a box without a tap still joins its two stretches.
    return boxes.map((at, b) => lengths.push(at - (b > 0 ? boxes[b - 1]! : 0)) - 1)
  })
  const leadOf = (run: number, b: number) => (plan.jacket && run === 0 ? 0 : lengths.push(plan.runs[run]![b]!) - 1)
  const masterLead = plan.master ? leadOf(0, 0) : -1
  const leads = plan.stations.map((s) => leadOf(s.run, s.box))
  const cents = lengths.map((m) => plan.cents_per_m.map((c) => Math.round(m * c)))
  const boxLength = (run: number, b: number) => plan.runs[run]![b]! - (b > 0 ? plan.runs[run]![b - 1]! : 0)
  const master_A = plan.master ? (plan.masterFirst ? plan.master.holding_A : plan.master.inrush_A) : 0
  const master_min = plan.masterFirst ? 15 : 19
  const relay_A = plan.relay_A * (plan.masterFirst ? 0.5 : 1)

  const holdsAt = (chosen: readonly number[]): boolean =>
    plan.stations.every((s, i) => {
      const terminal = supply - source_ohm * (s.inrush_A + master_A + relay_A)
      let station = s.inrush_A * plan.runs[s.run]![s.box]! * ohmPerM[chosen[leads[i]!]!]!
      for (let b = 0; b <= s.box; b++) {
        const amps = s.inrush_A + (plan.master && s.run === 0 && b === 0 ? master_A : 0)
        station += amps * boxLength(s.run, b) * ohmPerM[chosen[commonOf[s.run]![b]!]!]!
      }
      if (terminal - station < s.minimum_V - 1e-8) return false
      if (!plan.master) return true
      if (plan.relay_A > 0 && terminal < master_min) return false
      const shared = master_A + (s.run === 0 ? s.inrush_A : 0)
      const master =
        master_A * plan.runs[0]![0]! * ohmPerM[chosen[masterLead]!]! +
        shared * boxLength(0, 0) * ohmPerM[chosen[commonOf[0]![0]!]!]!
      return terminal - master >= master_min - 1e-8
    })

  let [best, tried] = [Infinity, 0]
  const chosen = new Array<number>(lengths.length).fill(0)
  const visit = (g: number, cost: number): void => {
    if (cost >= best) return
    if (g === lengths.length) {
      tried++
      if (holdsAt(chosen)) best = cost
      return
    }
    for (let k = 0; k < PLAN_SIZES_AWG.length; k++) {
      chosen[g] = k
      visit(g + 1, cost + cents[g]![k]!)
    }
  }
  visit(0, 0)
  return { cost_cents: Number.isFinite(best) ? best : null, tried }
}
