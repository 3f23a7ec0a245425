import type { PlanDrawing } from '../../core/card'

/** Room around the drawing for its tags, points. */
const MARGIN = 24
const TAG = 'font-family="Words" font-weight="bold" font-size="9"'
const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;')

/** A length for the scale's bar: 1, 2 or 5 of some power of ten, near a quarter of the width. */
function barOf(width_m: number): number {
  const wanted = width_m / 4
  const power = 10 ** Math.floor(Math.log10(wanted))
  return [5, 2, 1].map((n) => n * power).find((length) => length <= wanted) ?? power
}

/**
 * The drawing of a property as SVG for a print, north up, with a bar for its scale.
 * @param room most width and height, points
 */
export function planSvg(
  plan: PlanDrawing,
  room: { readonly width: number; readonly height: number },
  lengthText: (length_m: number) => string,
): { readonly svg: string; readonly width: number } {
  const [across, up] = [Math.max(plan.width_m, 1), Math.max(plan.height_m, 1)]
  const scale = Math.min((room.width - 2 * MARGIN) / across, (room.height - 3 * MARGIN) / up)
  const [width, height] = [across * scale + 2 * MARGIN, up * scale + 3 * MARGIN]
  const x = (x_m: number) => (MARGIN + (x_m - plan.west_m) * scale).toFixed(1)
  const y = (y_m: number) => (MARGIN + (plan.south_m + up - y_m) * scale).toFixed(1)
  const lines = plan.lines.map(
    ({ kind, points }) =>
      `<polyline points="${points.map((p) => `${x(p.x_m)},${y(p.y_m)}`).join(' ')}" fill="none" ` +
      `stroke="${kind === 'multicore' ? '#000' : '#777'}" stroke-width="${kind === 'multicore' ? 1.6 : 0.8}"/>`,
  )
  const places = plan.places.map(({ tag, kind, at }) => {
    const [left, top] = [Number(x(at.x_m)), Number(y(at.y_m))]
    const half = kind === 'cabinet' ? 5 : 3.2
    return (
      `<rect x="${left - half}" y="${top - half}" width="${2 * half}" height="${2 * half}" ` +
      `fill="${kind === 'cabinet' ? '#000' : '#fff'}" stroke="#000" stroke-width="1.1"/>` +
      // Once in white below itself, so that a line does not cross it.
      ['stroke="#fff" stroke-width="2.5"', 'fill="#000"']
        .map((how) => `<text x="${left + half + 2}" y="${top - 2}" ${TAG} ${how}>${escaped(tag)}</text>`)
        .join('')
    )
  })
  const bar_m = barOf(across)
  const foot = height - MARGIN / 2
  const bar =
    `<path d="M${MARGIN} ${foot - 3} v3 h${bar_m * scale} v-3" fill="none" stroke="#000" stroke-width="1"/>` +
    `<text x="${MARGIN + bar_m * scale + 5}" y="${foot}" font-family="Words" font-size="9">` +
    `${escaped(lengthText(bar_m))}</text>`
  const head = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}">`
  return { svg: [head, ...lines, ...places, bar, '</svg>'].join(''), width }
}
