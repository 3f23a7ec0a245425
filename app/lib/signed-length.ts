import { parseLength, type LengthUnit } from '../../core/quantity'

/** Metres east or north as typed, `-3.5` or `12 ft`: west and south are negative. Null where it is no length. */
export function signedLength_m(text: string, unit: LengthUnit): number | null {
  const plain = text.trim()
  const length_m = parseLength(plain.replace(/^[-−+]/, ''), unit)
  return length_m === null ? null : /^[-−]/.test(plain) ? -length_m : length_m
}
