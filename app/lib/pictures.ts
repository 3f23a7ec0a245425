import { openDB, type DBSchema } from 'idb'
import { pictureAddress, putPicture } from './api'

/** A picture kept on this device under the SHA-256 of its bytes; `sent` once the server has it. */
interface Pictures extends DBSchema {
  pictures: { key: string; value: KeptPicture }
}
interface KeptPicture {
  readonly key: string
  readonly property: string
  readonly sha256: string
  readonly blob: Blob
  readonly sent: boolean
  /** When it came, ms; what came before this was noted is the oldest. */
  readonly at?: number
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
  return { sha256: await keepHere(property, blob), width_px, height_px }
}

/** Keeps a picture on this device until it is sent, under the SHA-256 of its bytes. */
async function keepHere(property: string, picture: Blob): Promise<string> {
  const bytes = await picture.arrayBuffer()
  const digest = await crypto.subtle.digest('SHA-256', bytes)
  const sha256 = [...new Uint8Array(digest)].map((b) => b.toString(16).padStart(2, '0')).join('')
  const blob = new Blob([bytes], { type: picture.type })
  await (
    await db()
  ).put('pictures', { key: keyOf(property, sha256), property, sha256, blob, sent: false, at: Date.now() })
  return sha256
}

export interface NewPhoto extends NewPicture {
  readonly thumb: string
}
/** A photo keeps so many pixels along its longer side, and its small one so many: a coil’s label stays legible. */
const [PHOTO_px, THUMB_px] = [2048, 320]
/** Larger files are no photos from a phone; reading them would stop the page. */
const MOST_PHOTO_BYTES = 60_000_000

/**
 * Takes a photo in: drawn anew, upright and smaller, so that nothing of its file is left but what is seen, no place and
 * no device; kept on this device first, with a small one beside it.
 */
export async function takePhoto(property: string, file: Blob): Promise<NewPhoto | 'no_picture' | 'too_large'> {
  if (file.size > MOST_PHOTO_BYTES) return 'too_large'
  const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => null)
  if (!bitmap) return 'no_picture'
  const drawn = async (most_px: number) => {
    const scale = Math.min(1, most_px / Math.max(bitmap.width, bitmap.height))
    const [width_px, height_px] = [bitmap.width, bitmap.height].map((n) => Math.max(1, Math.round(n * scale))) as [
      number,
      number,
    ]
    return { sha256: await keepHere(property, await drawnAnew(bitmap, width_px, height_px)), width_px, height_px }
  }
  const [whole, small] = [await drawn(PHOTO_px), await drawn(THUMB_px)]
  bitmap.close()
  return { ...whole, thumb: small.sha256 }
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
  await (
    await db()
  ).put('pictures', { key: keyOf(property, sha256), property, sha256, blob, sent: true, at: Date.now() })
  return blob
}

/** Whether this device has a picture. */
export const isHere = async (property: string, sha256: string): Promise<boolean> =>
  (await (await db()).getKey('pictures', keyOf(property, sha256))) !== undefined

/**
 * Sends what waits, of one property or of all; resolves to how many wait still. Called again when there is a signal.
 */
export async function sendPictures(property: string | null = null): Promise<number> {
  const waiting = (await (await db()).getAll('pictures')).filter(
    (p) => !p.sent && (property === null || p.property === property),
  )
  let left = waiting.length
  for (const p of waiting) {
    if (!(await putPicture(p.property, p.sha256, p.blob))) continue
    await (await db()).put('pictures', { ...p, sent: true })
    left--
  }
  return left
}

/** Bytes of the pictures on this device, once what is over the budget is let go of: the oldest that were sent. */
export async function trimPictures(budget: number): Promise<number> {
  const all = (await (await db()).getAll('pictures')).sort((a, b) => (a.at ?? 0) - (b.at ?? 0))
  let held = all.reduce((sum, p) => sum + p.blob.size, 0)
  for (const { key, sent, blob } of all) {
    if (held <= budget) break
    if (!sent) continue
    await (await db()).delete('pictures', key)
    held -= blob.size
  }
  return held
}
