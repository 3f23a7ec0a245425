import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { readText } from '../../core/expect'
import type { Logged, Meter } from '../../core/record'
import type { SweepRow } from './useSweep'
import { draftOf, keepDraft } from '../lib/device'
import { useProperty } from '../stores/property'

const COMPLAINTS = {
  not_a_figure: 'sweep.notFigure',
  over_range: 'sweep.overRange',
  mark_or_figure: 'sweep.mark',
} as const

/** Entering a sweep's readings: where the cursor is, what is typed there, and what the keys do. */
export function useEntry(
  jobId: () => string,
  rows: () => readonly SweepRow[],
  log: () => readonly Logged[],
  meter: () => Meter,
  ground_C: () => number,
) {
  const { t } = useI18n()
  const property = useProperty()
  const at = ref<string | null>(null)
  const text = ref('')
  const asShort = ref(false)
  const complaint = ref('')
  const said = ref('')

  const index = computed(() =>
    Math.max(
      0,
      rows().findIndex((r) => r.terminal === at.value),
    ),
  )
  const row = computed((): SweepRow | null => rows()[index.value] ?? null)
  const next = computed(() => rows()[index.value + 1] ?? null)
  const left = computed(
    () => rows().filter((r) => r.logged === null && r.expected.expectation.kind !== 'not_readable').length,
  )

  /** Back to where the job was left: what was being typed, else the first terminal without a reading. */
  function resume(): void {
    const draft = draftOf(jobId())
    const [terminal, typed] = draft?.split('\n') ?? []
    const drafted = typed ? rows().find((r) => r.terminal === terminal) : undefined
    const unread = rows().find((r) => r.logged === null && r.expected.expectation.kind !== 'not_readable')
    at.value = (drafted ?? unread ?? rows()[0])?.terminal ?? null
    text.value = drafted ? typed! : ''
  }
  watch([text, at], () => {
    complaint.value = ''
    keepDraft(jobId(), `${at.value ?? ''}\n${text.value}`)
  })

  function move(to: string | null): void {
    at.value = to
    text.value = ''
    asShort.value = false
  }
  const step = (by: number) => {
    const to = rows()[index.value + by]
    if (to) move(to.terminal)
  }

  /** The last reading on its way to the disk: an undo typed right after it waits for it. */
  let underWay: Promise<unknown> = Promise.resolve()

  /** Keeps what is typed and goes on; with nothing typed it goes on as it is. */
  async function keep(written = text.value): Promise<void> {
    const here = row.value
    if (!here) return
    const read = readText(written, meter())
    if (!read.ok && read.code === 'empty') return step(1)
    if (!read.ok) {
      complaint.value = t(COMPLAINTS[read.code as keyof typeof COMPLAINTS])
      return undefined
    }
    const before = here.logged
    const now = new Date().toISOString()
    const author = property.facts!.jobs[jobId()]!.author
    move((next.value ?? here).terminal)
    said.value = ''
    const { value } = read
    underWay = (async () => {
      await property.record({
        kind: 'reading',
        fact: {
          job: jobId(),
          at: now,
          author,
          revision: property.held!.revision,
          test: here.expected.test,
          off: 'all_leads',
          meter: meter(),
          ground_C: ground_C(),
          value,
        },
      })
      if (before)
        await property.record({
          kind: 'strikeOut',
          fact: { reading: before.id, at: now, author, reason: t('sweep.again') },
        })
    })()
    await underWay
    return undefined
  }

  /** Strikes out the reading entered last and puts the cursor back on it. */
  async function undo(): Promise<void> {
    await underWay
    const last = log()
      .filter((l) => l.struck === null)
      .at(-1)
    if (!last) return
    await property.record({
      kind: 'strikeOut',
      fact: {
        reading: last.id,
        at: new Date().toISOString(),
        author: last.reading.author,
        reason: t('sweep.undoReason'),
      },
    })
    const { test } = last.reading
    if (test.kind === 'ohms' && test.from.kind === 'terminal') move(test.from.terminal)
    said.value = t('sweep.undone', { tag: row.value?.tag ?? '' })
  }

  /** The keys of the reading's field; figures fall through to it. */
  function onKey(event: KeyboardEvent): void {
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') void undo()
    else if (event.ctrlKey || event.metaKey || event.altKey) return
    else if (event.key === 'Enter') void keep()
    else if (event.key === 'o') void keep('OL')
    else if (event.key === 'z') asShort.value = true
    else if (event.key === 's') step(1)
    else if (event.key === 'ArrowDown') step(1)
    else if (event.key === 'ArrowUp') step(-1)
    else if (event.key === 'Escape') {
      text.value = ''
      asShort.value = false
    } else if (event.key === '?' || event.key === '/' || /^[0-9.,kKM]$/.test(event.key) || event.key.length > 1) return
    event.preventDefault()
  }

  return { at, text, asShort, complaint, said, row, next, left, index, resume, move, step, keep, undo, onKey }
}
