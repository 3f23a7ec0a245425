import { applyBatch } from '../../../core/site'
import { fetchMissed, type Step } from '../../lib/api'
import { ownStep } from './applied'
import type { PropertyState } from './state'

/**
 * Brings the site to where the server has it: by its own changes where they follow right after what is at hand, else
 * by the steps that were missed. `others` asks for those too where nothing of one's own is ahead; where a step does not
 * apply, the property is read anew.
 */
export function catchingUp({ held, ahead }: PropertyState, load: (id: string) => Promise<void>) {
  return async function catchUp(others: boolean): Promise<void> {
    const id: string = held.value!.id
    for (const { message, revision } of ahead.value) {
      const next = revision === held.value!.revision + 1 ? ownStep(held.value!.site, message, revision) : null
      if (!next) break
      held.value = { ...held.value!, site: next.site, revision, steps: [next.step, ...held.value!.steps] }
    }
    for (;;) {
      ahead.value = ahead.value.filter((a) => a.revision > held.value!.revision)
      if (ahead.value.length === 0 && !others) return
      const missed = await fetchMissed(id, held.value!.revision)
      if (held.value?.id !== id || missed.kind !== 'ok' || missed.value.steps.length === 0) return
      for (const { commands, ...step } of missed.value.steps) {
        // Two may be catching up at once.
        if (step.revision <= held.value.revision) continue
        const applied = applyBatch(held.value.site, commands)
        if (!applied.ok) return load(id)
        const steps: Step[] = [step, ...held.value.steps]
        held.value = { ...held.value, site: applied.value.site, revision: step.revision, steps }
      }
    }
  }
}
