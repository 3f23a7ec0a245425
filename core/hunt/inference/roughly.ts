import { isToEarth } from '../../record'
import type { TerminalId } from '../../site'
import type { Observation } from '../beliefs'
import type { HuntContext } from '../context'
import { middlesOf, touchesAlike, type FaultHypothesis } from '../catalogue'
import type { Model, Standing } from './classes'
import { fitOf } from './likelihood'
import { threadsOf } from './scope'

/** A reading is quiet while it lies no farther below the best that it could be than this, nats. */
const QUIET_NATS = 3

/**
 * Where along the cores two leads touch moves a reading by their wire alone, while that they touch moves it by a coil;
 * where a thread leaks moves what reads to earth as little. Of threads that read as if nothing were wrong one place
 * stands for all. Once a thread reads otherwise, each place of what lies in it is looked at by itself.
 */
export class Roughly {
  private readonly threads: (test: Observation['test']) => readonly TerminalId[]
  private readonly touches: ReadonlyMap<number, FaultHypothesis>
  private readonly leaks: ReadonlyMap<number, FaultHypothesis>
  private last: { readonly loud: string; readonly standing: Standing } | null = null

  constructor(
    context: HuntContext,
    private readonly model: Pick<Model, 'catalogue' | 'predictor' | 'coils' | 'threads'>,
  ) {
    this.threads = threadsOf(context)
    this.touches = touchesAlike(model.catalogue)
    this.leaks = leaksAlike(model)
  }

  /** The cells that stand for all after some readings; the same list as before while the same threads are quiet. */
  standing(readings: readonly Observation[], supply_V: Model['supply_V']): Standing {
    const loud = readings.filter((r) => !this.isQuiet(r, supply_V))
    const loudThreads = new Set(loud.flatMap((r) => this.threads(r.test)))
    const leaks = loud.some((r) => isToEarth(r.test)) ? null : this.leaks
    const name = `${leaks ? '' : 'earth '}${[...loudThreads].sort().join()}`
    if (this.last?.loud === name) return this.last.standing
    const { catalogue, threads } = this.model
    const standing = catalogue.variants.map((v) => {
      const of = threads[v.fault]
      if (of?.some((t) => loudThreads.has(t))) return v
      return leaks?.get(v.index) ?? (of ? this.touches.get(v.index) : null) ?? v
    })
    this.last = { loud: name, standing }
    return standing
  }

  private isQuiet({ test, value, times }: Observation, supply_V: Model['supply_V']): boolean {
    const { predictor, coils } = this.model
    const { log, best } = fitOf([{ value, times, seen: predictor.base(test), slots: [] }], supply_V, coils)
    return best - log < QUIET_NATS
  }
}

/** By cell of a leak the one in the middle of all of its size in its thread, or in the common. */
const leaksAlike = ({ catalogue, threads }: Pick<Model, 'catalogue' | 'threads'>) =>
  middlesOf(catalogue, (v) =>
    v.leak ? `${threads[v.fault]?.join()} ${v.ohm} ${catalogue.faults[v.fault]!.withState}` : null,
  )
