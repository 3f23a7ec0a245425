import type { PhotoMark } from '../../core/record'
import { arrowOf } from './photo-arrow'

/** The longer side of a photo in print: sharp at 150 dots an inch, three across a page. */
const PRINT_px = 480

/** A photo with its arrows and words drawn into it, as JPEG in an address that holds it. */
export async function photoForPrint(blob: Blob, marks: readonly PhotoMark[]): Promise<string> {
  const bitmap = await createImageBitmap(blob)
  const scale = Math.min(1, PRINT_px / Math.max(bitmap.width, bitmap.height))
  const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)]
  const canvas = new OffscreenCanvas(width, height)
  const pen = canvas.getContext('2d')!
  pen.drawImage(bitmap, 0, 0, width, height)
  bitmap.close()
  pen.lineCap = 'round'
  pen.textAlign = 'center'
  for (const mark of marks) {
    const { path, thick, x1, y1 } = arrowOf(mark, width, height)
    for (const [colour, times] of [
      ['#fff', 2.4],
      ['#98221a', 1],
    ] as const) {
      pen.strokeStyle = colour
      pen.lineWidth = thick * times
      pen.stroke(new Path2D(path))
    }
    pen.font = `700 ${thick * 7}px sans-serif`
    pen.strokeStyle = '#fff'
    pen.strokeText(mark.says, x1, y1 - thick * 2)
    pen.fillStyle = '#98221a'
    pen.fillText(mark.says, x1, y1 - thick * 2)
  }
  const bytes = new Uint8Array(await (await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.8 })).arrayBuffer())
  return `data:image/jpeg;base64,${btoa(Array.from(bytes, (b) => String.fromCharCode(b)).join(''))}`
}
