import type { PhotoMark } from '../../core/record'

/** An arrow over a picture of so many dots: its line and head as one path, and how thick it is drawn. */
export function arrowOf(mark: PhotoMark, width: number, height: number) {
  const [x1, y1, x2, y2] = [mark.from.x * width, mark.from.y * height, mark.to.x * width, mark.to.y * height]
  const thick = Math.max(width, height) / 160
  const turn = Math.atan2(y2 - y1, x2 - x1)
  const head = [turn + 2.6, turn - 2.6].map((a) => `${x2 + Math.cos(a) * thick * 5} ${y2 + Math.sin(a) * thick * 5}`)
  return { x1, y1, thick, path: `M${x1} ${y1} L${x2} ${y2} M${head[0]} L${x2} ${y2} L${head[1]}` }
}
