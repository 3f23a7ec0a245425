import type { Highs } from 'highs'

/** Choose one column of every set, at least cost, with every row's sum at most its limit. */
export interface Choice {
  readonly costs: readonly number[]
  readonly sets: readonly (readonly number[])[]
  readonly rows: readonly {
    readonly columns: readonly number[]
    readonly values: readonly number[]
    readonly limit: number
  }[]
}
export interface ChoiceAnswer {
  readonly kind: 'solved' | 'infeasible' | 'stopped'
  /** The column taken of every set; none where there is no answer. */
  readonly taken: readonly number[]
  /** No answer costs less than this. */
  readonly bound: number
}
export interface Effort {
  readonly absoluteGap: number
  readonly relativeGap: number
  readonly time_s: number
  readonly onProgress?: (best: number | null, bound: number) => void
}
export type ChoiceSolver = (choice: Choice, effort: Effort) => ChoiceAnswer

/** Volts by which a row may be overstepped in the solver; answers are checked again without it. */
const ROW_TOLERANCE = 1e-9

/**
 * The branch-and-cut solver of the HiGHS library, which the caller has loaded (its binary comes from another place in
 * a page than in a shell).
 */
export function choiceSolver(highs: Highs): ChoiceSolver {
  return ({ costs, sets, rows }, { absoluteGap, relativeGap, time_s, onProgress }) => {
    const all = [
      ...sets.map((set) => ({ columns: set, values: set.map(() => 1), low: 1, high: 1 })),
      ...rows.map((r) => ({ ...r, low: -Infinity, high: r.limit })),
    ]
    const starts = [0]
    for (const r of all) starts.push(starts.at(-1)! + r.columns.length)
    const model = highs.createModel({
      numCols: costs.length,
      numRows: all.length,
      colCost: costs,
      colLower: costs.map(() => 0),
      colUpper: costs.map(() => 1),
      integrality: costs.map(() => 1 as const),
      rowLower: all.map((r) => r.low),
      rowUpper: all.map((r) => r.high),
      matrix: {
        format: 'csr',
        numRows: all.length,
        numCols: costs.length,
        starts,
        indices: all.flatMap((r) => r.columns),
        values: all.flatMap((r) => r.values),
      },
    })
    try {
      const options = {
        output_flag: false,
        mip_abs_gap: absoluteGap,
        mip_rel_gap: relativeGap,
        time_limit: time_s,
        mip_feasibility_tolerance: 1e-9,
        primal_feasibility_tolerance: ROW_TOLERANCE,
        random_seed: 1,
      }
      for (const [name, value] of Object.entries(options)) model.options.set(name, value)
      const { callbackType, modelStatus } = highs.constants
      model.run(
        onProgress
          ? {
              [callbackType.mipInterrupt]: ({ data }) => {
                onProgress(
                  Number.isFinite(data.mip_primal_bound) ? data.mip_primal_bound! : null,
                  data.mip_dual_bound ?? -Infinity,
                )
                return undefined
              },
            }
          : {},
      )
      const status = model.getModelStatus()
      const bound = Number(model.info.get('mip_dual_bound'))
      if (status === modelStatus.infeasible) return { kind: 'infeasible', taken: [], bound: Infinity }
      const values = model.getSolution().colValue
      const taken = sets.map((set) => set.find((c) => values[c]! > 0.5) ?? -1)
      if (taken.includes(-1)) return { kind: 'stopped', taken: [], bound }
      return { kind: status === modelStatus.optimal ? 'solved' : 'stopped', taken, bound }
    } finally {
      model.dispose()
    }
  }
}
