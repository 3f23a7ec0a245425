import { strToU8, Zip, ZipDeflate, ZipPassThrough } from 'fflate'
import type { Within } from '../db/actor'
import { readPicture } from '../db/pictures'

/** A property's file and its pictures in one zip, in pieces; pictures are packed already. */
export async function* zipped(
  within: Within,
  property: string,
  file: AsyncIterable<string>,
  pictures: readonly string[],
): AsyncGenerator<Uint8Array> {
  let ready: Uint8Array[] = []
  const zip = new Zip((error, chunk) => {
    if (error) throw error
    ready.push(chunk)
  })
  const taken = () => {
    const chunks = ready
    ready = []
    return chunks
  }
  const entry = new ZipDeflate('property.json', { level: 6 })
  zip.add(entry)
  for await (const piece of file) {
    entry.push(strToU8(piece))
    yield* taken()
  }
  entry.push(new Uint8Array(), true)
  for (const sha256 of pictures) {
    const picture = await readPicture(within, property, sha256)
    if (!picture) continue
    const part = new ZipPassThrough(`pictures/${sha256}`)
    zip.add(part)
    part.push(picture.bytes, true)
    yield* taken()
  }
  zip.end()
  yield* taken()
}
