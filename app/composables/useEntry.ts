import { ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { readText } from '../../core/expect'
import type { Logged, Meter } from '../../core/record'
import type { SweepRow } from './useSweep'
import { useCursor } from './useCursor'
import { useJobFacts } from './useJobFacts'

const COMPLAINTS = {
  not_a_figure: 'sweep.notFigure',
  over_range: 'sweep.overRange',
  mark_or_figure: 'sweep.mark',
} as const

/** Entering a sweep's readings: the cursor, what is typed there, and what the keys do. */
export function useEntry(
  jobId: () => string,
  rows: () => readonly SweepRow[],
  log: () => readonly Logged[],
  meter: () => Meter,
) {
  const { t } = useI18n()
  const cursor = useCursor(jobId, rows)
  const { at, text, asShort, row, next, move, step } = cursor
  const written = useJobFacts(jobId)
  const complaint = ref('')
  const said = ref('')
  watch([text, at], () => {
    complaint.value = ''
  })

  /** The last reading on its way to the disk: an undo typed right after it waits for it. */
  let underWay: Promise<unknown> = Promise.resolve()

  /** Keeps what is typed and goes on; with nothing typed it goes on as it is. */
  async function keep(typed = text.value): Promise<void> {
    const here = row.value
    if (!here) return
    const read = readText(typed, meter())
    if (!read.ok && read.code === 'empty') return step(1)
    if (!read.ok) {
      complaint.value = t(COMPLAINTS[read.code as keyof typeof COMPLAINTS])
      return undefined
    }
    const before = here.logged
    move((next.value ?? here).terminal)
    said.value = ''
    underWay = (async () => {
      await written.read(here.expected.test, read.value)
      if (before) await written.strike(before.id, t('sweep.again'))
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
    await written.strike(last.id, t('sweep.undoReason'))
    const { test } = last.reading
    if (test.kind === 'ohms' && test.from.kind === 'terminal') move(test.from.terminal)
    said.value = t('sweep.undone', { tag: row.value?.tag ?? '' })
  }

  const deeds: Readonly<Record<Deed, () => unknown>> = {
    undo,
    keep: () => keep(),
    open: () => keep('OL'),
    short: () => (asShort.value = true),
    next: () => step(1),
    before: () => step(-1),
    clear: () => move(at.value),
    nothing: () => undefined,
  }
  /** The keys of the reading's field; figures fall through to it. */
  function onKey(event: KeyboardEvent): void {
    const deed = deedOf(event)
    if (!deed) return
    event.preventDefault()
    void deeds[deed]()
  }
  return { ...cursor, complaint, said, keep, undo, onKey }
}

type Deed = 'undo' | 'keep' | 'open' | 'short' | 'next' | 'before' | 'clear' | 'nothing'
const DEEDS: Readonly<Record<string, Deed>> = {
  Enter: 'keep',
  o: 'open',
  z: 'short',
  s: 'next',
  ArrowDown: 'next',
  ArrowUp: 'before',
  Escape: 'clear',
}

/** What a key does; null where it is the field's own. */
function deedOf({ key, ctrlKey, metaKey, altKey }: KeyboardEvent): Deed | null {
  if ((ctrlKey || metaKey) && key.toLowerCase() === 'z') return 'undo'
  if (ctrlKey || metaKey || altKey) return null
  // Figures and named keys fall through to the field; any other letter is taken for a slip.
  const own = key === '?' || key === '/' || /^[0-9.,kKM]$/.test(key) || key.length > 1
  return DEEDS[key] ?? (own ? null : 'nothing')
}
