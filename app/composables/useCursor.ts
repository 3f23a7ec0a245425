import { computed, ref, watch } from 'vue'
import type { SweepRow } from './useSweep'
import { draftOf, keepDraft } from '../lib/device'

/** Where the cursor of a sweep is and what is typed there; both are kept on the device as they change. */
export function useCursor(jobId: () => string, rows: () => readonly SweepRow[]) {
  const at = ref<string | null>(null)
  const text = ref('')
  const asShort = ref(false)
  const isUnread = (r: SweepRow) => r.logged === null && r.expected.expectation.kind !== 'not_readable'

  const index = computed(() =>
    Math.max(
      0,
      rows().findIndex((r) => r.terminal === at.value),
    ),
  )
  const row = computed((): SweepRow | null => rows()[index.value] ?? null)
  const next = computed(() => rows()[index.value + 1] ?? null)
  const left = computed(() => rows().filter(isUnread).length)

  /** Back to where the job was left: what was being typed, else the first terminal without a reading. */
  function resume(): void {
    const draft = draftOf(jobId())
    const [terminal, typed] = draft?.split('\n') ?? []
    const drafted = typed ? rows().find((r) => r.terminal === terminal) : undefined
    at.value = (drafted ?? rows().find(isUnread) ?? rows()[0])?.terminal ?? null
    text.value = drafted ? typed! : ''
  }
  watch([text, at], () => keepDraft(jobId(), `${at.value ?? ''}\n${text.value}`))

  function move(to: string | null): void {
    at.value = to
    text.value = ''
    asShort.value = false
  }
  const step = (by: number) => {
    const to = rows()[index.value + by]
    if (to) move(to.terminal)
  }
  return { at, text, asShort, row, next, left, index, resume, move, step }
}
