/**
 * Works something out beside the page whenever what it hangs on changes. What is under way is finished, then the latest
 * is taken; those between are left out, so the page never waits.
 * @param ask what is to be worked out now; null where there is nothing to work out
 */
export function useLatest<T>(
  on: () => unknown,
  ask: () => Promise<T> | null,
): { found: Readonly<Ref<T | null>>; behind: Readonly<Ref<boolean>> } {
  const found = shallowRef<T | null>(null)
  const behind = ref(false)
  let [running, waiting, gone] = [false, false, false]
  async function work(): Promise<void> {
    if (running) {
      waiting = true
      return
    }
    running = true
    behind.value = true
    try {
      do {
        waiting = false
        const asked = ask()
        if (!asked) break
        const answer = await asked
        if (!gone) found.value = answer
      } while (waiting)
    } finally {
      // What went wrong once is asked again at the next change.
      running = false
      behind.value = false
    }
  }
  watch(on, () => void work(), { immediate: true, deep: true })
  onBeforeUnmount(() => {
    gone = true
  })
  return { found, behind }
}
