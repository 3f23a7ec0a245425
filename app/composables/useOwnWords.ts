import { brokenCopy, copyOf, freeName, shipped } from '../../core/procedure'
import type { Procedure, Step } from '../../core/record'
import { sayTitle, sayWritten } from '../../words/procedure'
import { standing, type OwnProcedure } from '../lib/own-procedures'
import { useProcedures } from '../stores/procedures'
import { useWorkWords } from './useWorkWords'

/** How a company’s own procedures are said where no property is open, and how one is begun from ours. */
export function useOwnWords() {
  const { t, speaker } = useWorkWords(() => ({ length: 'm', temperature: 'C' }))
  const procedures = useProcedures()
  const shown = (own: OwnProcedure): Procedure => (own.mine ?? own.kept)!
  const says = (procedure: Procedure, step: Step): string => sayWritten(procedure, step, speaker.value)
  function stateOf(own: OwnProcedure): string {
    if (own.theirs !== null) return t(own.kept ? 'own.state.clash' : 'own.state.gone')
    if (own.refusals.length > 0 || (own.wants === 'nothing' && brokenCopy(standing(own)!).length > 0))
      return t('own.state.broken')
    if (own.wants === 'draft') return t('own.state.draft')
    return t(own.wants === 'nothing' ? 'own.state.kept' : 'own.state.waiting')
  }
  const isTaken = (id: string) => shipped(id) !== null || procedures.byId(id) !== null

  /** Writes the draft of a copy, and leads to it. */
  async function adapt(original: Procedure): Promise<void> {
    // First what is here already: its names are taken.
    await procedures.load()
    const id = freeName(`our_${original.id}`, isTaken)
    await procedures.write(copyOf(original, id, t('own.copyTitle', { title: sayTitle(original, speaker.value) })))
    await navigateTo(`/procedures/${id}`)
  }
  return { t, speaker, procedures, shown, says, stateOf, isTaken, adapt }
}
