import type { Breach } from '../core/splice'
import { say, type Speaker } from './say'

/** A broken rule in a sentence, its connector by name. */
export function sayBreach({ code, params }: Pick<Breach, 'code' | 'params'>, speaker: Speaker): string {
  return say({ code: `breach.${code}`, params }, { ...speaker, figure: (name, value) => (name === 'connector' ? speaker.t(`connector.${value}`, {}) : speaker.figure(name, value)) })
}
