const FIGURE = /^(\d+(?:[.,]\d*)?|[.,]\d+)\s*([kKM]?)\s*(?:[\u03a9\u2126]|ohms?)?$/
/** `1,234` is 1.234 to some and 1234 to others. */
const GROUPED = /^\d{1,3},\d{3}$/

/**
 * Reads a resistance as people write it on a meter or in a log: `34.6`, `34,6`, `.9`, `1.2k`, `0.47 M`, `12 ohm`.
 * `k` is thousand, `M` million; a small `m` is refused, since milliohms and megohms differ by nine decades, and so is
 * a comma before exactly three digits, which may be a point or a thousand.
 * @returns ohms, or null when the text is not a figure this function can be sure of
 */
export function parseOhms(text: string): number | null {
  const match = FIGURE.exec(text.trim())
  if (!match || GROUPED.test(match[1]!)) return null
  const figure = Number(match[1]!.replace(',', '.'))
  const scale = { '': 1, k: 1e3, K: 1e3, M: 1e6 }[match[2]!]!
  return Number.isFinite(figure) ? figure * scale : null
}

/** Ohms for a person: three to four figures, `k` and `M` from a thousand up. */
export function ohmsText(ohm: number): string {
  const size = Math.abs(ohm)
  if (size >= 999_950) return `${Number((ohm / 1e6).toPrecision(4))} M`
  if (size >= 999.95) return `${Number((ohm / 1e3).toPrecision(4))} k`
  return size >= 0.0005 && size < 0.95 ? ohm.toFixed(2) : ohm.toFixed(1)
}

/** As `ohmsText`, with its unit: `34.6 Ω`, `4.2 MΩ`. */
export function ohmsWithUnit(ohm: number): string {
  const text = ohmsText(ohm)
  return /[kM]$/.test(text) ? `${text}Ω` : `${text} Ω`
}
