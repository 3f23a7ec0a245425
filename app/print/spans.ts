import type { Content } from 'pdfmake/interfaces'

export type Font = 'Words' | 'Figures'

/** What our own fonts have as they ship: Latin letters, figures and the usual signs. All else is set in another. */
const OURS = /[\u0020-\u00b4\u00b6-\u00ff\u0131\u0152\u0153\u2013\u2014\u2018-\u201e\u2022\u2026\u20ac\u2212]+/gu

/** A text in one of our fonts, and what that lacks (Ω, other alphabets) in the one that has it. */
export function spans(text: string, font: Font = 'Words'): Content[] {
  const set: Content[] = []
  let at = 0
  for (const { 0: own, index } of text.matchAll(OURS)) {
    if (index > at) set.push({ text: text.slice(at, index), font: 'Other' })
    set.push({ text: own, font })
    at = index + own.length
  }
  if (at < text.length) set.push({ text: text.slice(at), font: 'Other' })
  return set.length === 0 ? [{ text: '', font }] : set
}
