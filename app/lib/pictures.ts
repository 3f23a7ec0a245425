import { openDB, type DBSchema } from 'idb'
import { pictureAddress, putPicture } from './api'

/** A picture kept on this device under the SHA-256 of its bytes; `sent` once the server has it. */
interface Pictures extends DBSchema {
  pictures: { key: string; value: { key: string; property: string; sha256: string; blob: Blob; sent: boolean } }
}

const opened = () =>
  openDB<Pictures>('field-thread-pictures', 1, {
    upgrade(db) {
      db.createObjectStore('pictures', { keyPath: 'key' })
    },
  })
let database: ReturnType<typeof opened> | null = null
const db = () => (database ??= opened())
const keyOf = (property: string, sha256: string) => `${property} ${sha256}`

export interface NewPicture {
  readonly sha256: string
  readonly width_px: number
  readonly height_px: number
}

/** Larger pictures are drawn anew at this many pixels: plans stay legible, and the server takes 5 MB. */
const MOST_px = 3600
const MOST_BYTES = 4_500_000

/** Reads a picture, makes it small enough, and keeps it on this device; null where it is no picture. */
export async function takePicture(property: string, file: Blob): Promise<NewPicture | null> {
  const bitmap = await createImageBitmap(file).catch(() => null)
  if (!bitmap) return null
  const plain = ['image/png', 'image/jpeg', 'image/webp'].includes(file.type)
  const scale = Math.min(1, MOST_px / Math.max(bitmap.width, bitmap.height))
  const [width_px, height_px] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)]
  const blob = plain && scale === 1 && file.size <= MOST_BYTES ? file : await drawnAnew(bitmap, width_px, height_px)
  bitmap.close()
  const bytes = await blob.arrayBuffer()
  const digest = await crypto.subtle.digest('SHA-256', bytes)
  const sha256 = [...new Uint8Array(digest)].map((b) => b.toString(16).padStart(2, '0')).join('')
  await (
    await db()
  ).put('pictures', {
    key: keyOf(property, sha256),
    property,
    sha256,
    blob: new Blob([bytes], { type: blob.type }),
    sent: false,
  })
  return { sha256, width_px, height_px }
}

async function drawnAnew(bitmap: ImageBitmap, width: number, height: number): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height)
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, width, height)
  return canvas.convertToBlob({ type: 'image/jpeg', quality: 0.85 })
}

/** A picture's bytes: from this device, else from the server (and then kept); null where neither has it now. */
export async function pictureOf(property: string, sha256: string): Promise<Blob | null> {
  const here = await (await db()).get('pictures', keyOf(property, sha256))
  if (here) return here.blob
  const reply = await fetch(pictureAddress(property, sha256)).catch(() => null)
  if (!reply?.ok) return null
  const blob = await reply.blob()
  await (await db()).put('pictures', { key: keyOf(property, sha256), property, sha256, blob, sent: true })
  return blob
}

/** Sends what waits of a property; resolves to how many wait still. Called again when there is a signal. */
export async function sendPictures(property: string): Promise<number> {
  const waiting = (await (await db()).getAll('pictures')).filter((p) => p.property === property && !p.sent)
  let left = waiting.length
  for (const p of waiting) {
    if (!(await putPicture(property, p.sha256, p.blob))) continue
    await (await db()).put('pictures', { ...p, sent: true })
    left--
  }
  return left
}
