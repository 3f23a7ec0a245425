import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { mkdtemp, open, rm, type FileHandle } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Unzip, UnzipInflate, type UnzipFile } from 'fflate'
import { MOST_BYTES, MOST_FILE_BYTES } from '../../core/formats'
import { accepted, refusal, refused, type Outcome } from '../../core/refusal'
import { pictureKind } from './picture'

/** A property file that came in, kept beside the database until it is taken in or refused. */
export interface Spooled {
  readonly bytes: number
  /** The file's text from its beginning; to be read as often as needed. */
  readonly read: () => AsyncIterable<Uint8Array>
  readonly pictures: readonly string[]
  readonly readPicture: (sha256: string) => Promise<Outcome<{ kind: string; bytes: Buffer }>>
  readonly remove: () => Promise<void>
}

const PROPERTY = 'property.json'
const PICTURE = /^pictures\/([0-9a-f]{64})$/
/** A zip of more pictures than this is no property of ours. */
const MOST_PICTURES = 2000

/** Writes what comes into a folder of its own: a property's text, or a zip with one and its pictures. */
export async function spool(chunks: AsyncIterable<Uint8Array>, zip: boolean): Promise<Outcome<Spooled>> {
  const folder = await mkdtemp(join(tmpdir(), 'field-thread-'))
  const remove = () => rm(folder, { recursive: true, force: true })
  try {
    const sink = new Sink(folder)
    const outcome = zip ? await unzipInto(sink, chunks) : await copyInto(sink, chunks)
    await sink.close()
    if (!outcome.ok) {
      await remove()
      return outcome
    }
    return accepted({
      bytes: outcome.value,
      read: () => createReadStream(join(folder, PROPERTY)),
      pictures: sink.pictures,
      readPicture: (sha256) => pictureIn(folder, sha256),
      remove,
    })
  } catch (error) {
    await remove()
    throw error
  }
}

/** The files of a folder being written, one after the other. */
class Sink {
  private readonly files = new Map<string, FileHandle>()
  readonly pictures: string[] = []
  private written = 0

  constructor(private readonly folder: string) {}

  async write(name: string, chunk: Uint8Array): Promise<boolean> {
    this.written += chunk.length
    if (this.written > MOST_FILE_BYTES) return false
    const file = this.files.get(name) ?? (await open(join(this.folder, name), 'w'))
    this.files.set(name, file)
    await file.write(chunk)
    return true
  }

  async close(): Promise<void> {
    for (const file of this.files.values()) await file.close()
  }
}

const tooLarge = () => refused(refusal('file_too_large', [], { limit: MOST_FILE_BYTES / 1e6 }))

async function copyInto(sink: Sink, chunks: AsyncIterable<Uint8Array>): Promise<Outcome<number>> {
  let bytes = 0
  for await (const chunk of chunks) {
    bytes += chunk.length
    if (!(await sink.write(PROPERTY, chunk))) return tooLarge()
  }
  return bytes === 0 ? refused(refusal('empty_file')) : accepted(bytes)
}

async function unzipInto(sink: Sink, chunks: AsyncIterable<Uint8Array>): Promise<Outcome<number>> {
  let waiting: [name: string, chunk: Uint8Array][] = []
  let [bytes, failed] = [0, false]
  const unzip = new Unzip((file: UnzipFile) => {
    const sha256 = PICTURE.exec(file.name)?.[1]
    if (file.name !== PROPERTY && sha256 === undefined) return // other entries are left alone
    if (sha256 !== undefined) sink.pictures.push(sha256)
    file.ondata = (error, chunk) => {
      if (error) failed = true
      else waiting.push([sha256 ?? PROPERTY, chunk])
    }
    file.start()
  })
  unzip.register(UnzipInflate)
  const settle = async () => {
    const now = waiting
    waiting = []
    for (const [name, chunk] of now) {
      if (name === PROPERTY) bytes += chunk.length
      if (!(await sink.write(name, chunk))) return false
    }
    return sink.pictures.length <= MOST_PICTURES
  }
  try {
    for await (const chunk of chunks) {
      // A little at a time: what was packed a thousandfold must not unfold in one go.
      for (let at = 0; at < chunk.length; at += 4096) {
        unzip.push(chunk.subarray(at, at + 4096))
        if (!(await settle())) return tooLarge()
      }
    }
    unzip.push(new Uint8Array(0), true)
  } catch {
    failed = true
  }
  if (!(await settle())) return tooLarge()
  return failed || bytes === 0 ? refused(refusal('not_our_zip')) : accepted(bytes)
}

/** A picture that rode beside the file: what it is named after, or a refusal that names it. */
async function pictureIn(folder: string, sha256: string): Promise<Outcome<{ kind: string; bytes: Buffer }>> {
  const parts: Buffer[] = []
  for await (const part of createReadStream(join(folder, sha256))) parts.push(part as Buffer)
  const bytes = Buffer.concat(parts)
  const path = ['pictures', sha256]
  if (bytes.length > MOST_BYTES) return refused(refusal('too_large', path))
  if (createHash('sha256').update(bytes).digest('hex') !== sha256) return refused(refusal('other_bytes', path))
  const kind = pictureKind(bytes)
  return kind === null
    ? refused(refusal('not_a_picture', path, { limit: MOST_BYTES / 1_000_000 }))
    : accepted({ kind, bytes })
}
