import { runOf, type Run } from '../../core/procedure'
import { jobsInOrder } from '../../core/record'
import { useProperty } from '../stores/property'

let shared: ComputedRef<ReadonlyMap<string, Run>> | undefined

/** Every piece of work that follows a procedure, by its job, the latest first; worked out once for all who ask. */
export function useRuns(): ComputedRef<ReadonlyMap<string, Run>> {
  const property = useProperty()
  return (shared ??= effectScope(true).run(() =>
    computed(
      () =>
        new Map(
          jobsInOrder(property.facts!, 'procedure').flatMap((id) => {
            const run = runOf(property.site!, property.facts!, id)
            return run ? [[id, run] as const] : []
          }),
        ),
    ),
  )!)
}
