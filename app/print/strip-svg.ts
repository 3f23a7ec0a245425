import type { Strip } from '../../core/strip'

const HEIGHT = 46
const [LEFT, RIGHT] = [14, 34]
const TEXT = 'font-family="Words" font-size="8.5" text-anchor="middle"'
const COIL = 'm0 0 q 1.5 -9 4 -1 t 4 0 t 4 0 t 4 1'
/** Tags closer to each other than this are left out, points. */
const LEAST_APART = 16
const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;')

/**
 * A thread as a line to scale from the cabinet to its coils, for a print; where it is bad it is crossed, in black.
 * @param told what is written above a stretch
 */
export function stripSvg(
  strip: Strip,
  bad: readonly { readonly from_m: number; readonly to_m: number }[],
  width: number,
  tagOf: (place: string) => string,
  told: readonly { readonly from_m: number; readonly to_m: number; readonly text: string }[] = [],
): string {
  const length = Math.max(strip.length_m, 1)
  const x = (at_m: number) => LEFT + (at_m / length) * (width - LEFT - RIGHT)
  const middle = 18
  const line = (from: number, to: number, how: string) =>
    `<line x1="${from.toFixed(1)}" x2="${to.toFixed(1)}" y1="${middle}" y2="${middle}" ${how}/>`
  const runs = strip.runs.map((r) => line(x(r.from_m), x(r.to_m), 'stroke="#000" stroke-width="2"'))
  let last = -Infinity
  const marks = strip.marks.map(({ at_m, place, kind }) => {
    const at = x(at_m)
    const shape =
      kind === 'knot'
        ? `<circle cx="${at.toFixed(1)}" cy="${middle}" r="3.4" fill="#000"/>`
        : `<line x1="${at.toFixed(1)}" x2="${at.toFixed(1)}" y1="${middle - 5}" y2="${middle + 5}" stroke="#000"/>`
    if (at - last < LEAST_APART) return shape
    last = at
    return `${shape}<text x="${at.toFixed(1)}" y="${middle + 20}" ${TEXT}>${escaped(tagOf(place))}</text>`
  })
  const coils = strip.coils.map(
    ({ at_m }) =>
      `<path d="${COIL}" transform="translate(${(x(at_m) + 4).toFixed(1)} ${middle + 2})" ` +
      'fill="none" stroke="#000" stroke-width="1.4"/>',
  )
  const gaps = bad.map(({ from_m, to_m }) => line(x(from_m), x(to_m), 'stroke="#fff" stroke-width="5"'))
  const crosses = bad.map(({ from_m, to_m }) => {
    const at = x((from_m + to_m) / 2)
    return `<path d="M${(at - 5).toFixed(1)} ${middle - 6} l10 12 m0 -12 l-10 12" stroke="#000" stroke-width="2.6"/>`
  })
  const above = told.map(
    ({ from_m, to_m, text }) =>
      `<text x="${x((from_m + to_m) / 2).toFixed(1)}" y="${middle - 8}" ${TEXT}>${escaped(text)}</text>`,
  )
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${HEIGHT}">` +
    `<rect x="${LEFT - 10}" y="${middle - 7}" width="10" height="14" fill="#fff" stroke="#000"/>` +
    [...runs, ...gaps, ...marks, ...coils, ...crosses, ...above].join('') +
    '</svg>'
  )
}
