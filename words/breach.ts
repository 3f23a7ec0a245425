import type { Breach, Trouble } from '../core/splice'
import { say, type Speaker } from './say'

/** A broken rule in a sentence, its connector by name. */
export function sayBreach({ code, params }: Pick<Breach, 'code' | 'params'>, speaker: Speaker): string {
  return say(
    { code: `breach.${code}`, params },
    {
      ...speaker,
      figure: (name, value) =>
        name === 'connector' ? speaker.t(`connector.${value}`, {}) : speaker.figure(name, value),
    },
  )
}

/** What a change would bring about, in a sentence. */
export const sayTrouble = (trouble: Trouble, speaker: Speaker): string =>
  trouble.section === 'breach'
    ? sayBreach(trouble, speaker)
    : say({ code: `finding.${trouble.code}`, params: trouble.params }, speaker)
