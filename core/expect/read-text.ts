import { parseOhms } from '../quantity'
import type { Meter, OhmsValue } from '../record'

/** A reading as typed, or why it is none. */
export type ReadText =
  | { readonly ok: true; readonly value: OhmsValue }
  | { readonly ok: false; readonly code: 'empty' | 'not_a_figure' | 'over_range' | 'mark_or_figure' }

const OPEN_WORDS = /^(ol|o\.l\.?|0l|open|o)$/i

/**
 * Reads a typed reading for this meter. `OL`, `open` and `o` are open. On a meter whose open mark is a bare 1, `1` is
 * open and one ohm is written `1.0`; on any other, a bare 1 is asked about, since a shown 1 is hardly ever one ohm.
 */
export function readText(text: string, meter: Meter): ReadText {
  const trimmed = text.trim()
  if (trimmed === '') return { ok: false, code: 'empty' }
  if (OPEN_WORDS.test(trimmed)) return { ok: true, value: { kind: 'open' } }
  if (trimmed === '1')
    return meter.openMark === '1' ? { ok: true, value: { kind: 'open' } } : { ok: false, code: 'mark_or_figure' }
  const ohm = parseOhms(trimmed)
  if (ohm === null) return { ok: false, code: 'not_a_figure' }
  if (ohm > meter.highest_ohm) return { ok: false, code: 'over_range' }
  return { ok: true, value: { kind: 'ohm', ohm } }
}
