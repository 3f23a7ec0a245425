import { putCompanyRecord } from '../lib/api'
import { fetchTuning, USUAL_TUNING, type Tuning } from '../lib/failures'

/** What of the company’s own work its quotes and hunts heed; as usual until somebody says otherwise. */
export function useTuning() {
  const tuning = shallowRef<Tuning>(USUAL_TUNING)
  let revision: number | null = null
  async function load(): Promise<void> {
    const reply = await fetchTuning()
    if (reply.kind !== 'ok') return
    revision = reply.value.revision
    tuning.value = reply.value.record ?? USUAL_TUNING
  }
  onMounted(load)
  /** For the whole company; what could not be kept stands as it was. */
  async function tune(more: Partial<Tuning>): Promise<void> {
    if (revision !== null) await putCompanyRecord('tuning', revision, { ...tuning.value, ...more })
    await load()
  }
  return { tuning, tune }
}
