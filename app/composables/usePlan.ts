import type { Outcome, Refusal } from '../../core/refusal'
import { applyBatch, type Command } from '../../core/site'
import { sayRefusal, type Speaker } from '../../words'
import { useProperty } from '../stores/property'

/**
 * Changes of the plan from what was typed: kept when they are good, said where they are not. Nothing is written by
 * halves.
 */
export function usePlan(speaker: () => Speaker): {
  refused: Ref<readonly Refusal[]>
  keep: (outcome: Outcome<Command[]>) => Promise<boolean>
  sentences: ComputedRef<string[]>
} {
  const property = useProperty()
  const refused = shallowRef<readonly Refusal[]>([])
  async function keep(outcome: Outcome<Command[]>): Promise<boolean> {
    refused.value = outcome.ok ? [] : outcome.refusals
    if (!outcome.ok || outcome.value.length === 0) return outcome.ok
    const applied = applyBatch(property.site!, outcome.value)
    if (!applied.ok) {
      refused.value = applied.refusals
      return false
    }
    await property.change(outcome.value)
    return true
  }
  return { refused, keep, sentences: computed(() => refused.value.map((r) => sayRefusal(r, speaker()))) }
}
