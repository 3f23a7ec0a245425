import { complex, engineOf, minus, plus, size, type Powered, type Solution } from '../circuit'
import type { DeviceId } from '../site'
import { mastersTerminals, type Model } from './model'
import { editsAt, loadsAt, type Moment } from './state'

/** What the circuit engine gives at one moment: every energised coil's volts, and the volts at C. */
export interface Verified {
  readonly moment: Moment
  readonly terminal_V: number
  readonly load_A: number
  readonly solution: Solution
  readonly coils: readonly { readonly device: DeviceId; readonly volt_V: number; readonly margin_V: number }[]
}

/** Puts moments of a property through the circuit engine, factored once. */
export function engineVerifier(model: Model, powered: Powered): (moment: Moment) => Verified {
  const engine = engineOf(powered)
  const coilParts = new Map(powered.parts.flatMap((p) => (p.of.kind === 'coil' ? [[p.of.device, p] as const] : [])))
  return (moment) => {
    const loads = loadsAt(moment, model.holding)
    const masters = [moment.starter, ...moment.others].flatMap((s) => mastersTerminals(model.site, s))
    const solution = engine.solve(editsAt(powered, moment, loads, masters))
    const source = powered.sources.find((s) => s.controller === moment.starter.at.controller)!
    const terminal_V = size(minus(solution.volts(source.hot), solution.volts(source.common)))
    const coils = loads.flatMap((load) => {
      const part = coilParts.get(load.device)
      if (!part) return []
      const volt_V = size(minus(solution.volts(part.a), solution.volts(part.b)))
      return [{ device: load.device, volt_V, margin_V: model.allowed_V(load, terminal_V) - (terminal_V - volt_V) }]
    })
    let load = complex(0)
    for (const amps of solution.closed_A.values()) load = plus(load, amps)
    return { moment, terminal_V, load_A: size(load), solution, coils }
  }
}
