import { ref, shallowRef } from 'vue'

type Got<T> = { readonly value: T | null } | { readonly error: string } | 'stopped'

/**
 * Works something out beside the page, one at a time: what came in meanwhile is worked out next, all at once, and only
 * the answer to what was asked last is shown. `work` is null where there is nothing to work out; `abandon` ends what
 * is under way.
 */
export function useWeighing<T>(work: () => (() => Promise<T>) | null, abandon: () => void) {
  const answer = shallowRef<T | null>(null)
  const [working, stopped, failed] = [ref(false), ref(false), ref('')]
  let waiting = false
  let giveUp: (() => void) | null = null

  async function once(): Promise<Got<T>> {
    const ask = work()
    if (ask === null) return { value: null }
    const given = new Promise<'stopped'>((resolve) => {
      giveUp = () => resolve('stopped')
    })
    try {
      return await Promise.race([ask().then((value) => ({ value })), given])
    } catch (error) {
      return { error: String(error) }
    }
  }
  async function weigh(): Promise<void> {
    waiting = true
    if (working.value) return
    working.value = true
    stopped.value = false
    while (waiting) {
      waiting = false
      const got = await once()
      giveUp = null
      if (waiting) continue
      stopped.value = got === 'stopped'
      answer.value = got !== 'stopped' && 'value' in got ? got.value : null
      failed.value = got !== 'stopped' && 'error' in got ? got.error : ''
    }
    working.value = false
  }
  function stop(): void {
    if (!giveUp) return
    abandon()
    giveUp()
  }
  return { answer, working, stopped, failed, weigh, stop }
}
