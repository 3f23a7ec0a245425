import { PassThrough, Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGzip } from 'node:zlib'
import { getRequestHeader, setResponseHeader, type H3Event } from 'h3'
import { actingAs, type Within } from '../db/actor'
import { actorOf } from './actor'
import { database } from './database'

export type Pieces = AsyncIterable<string | Uint8Array>

/** An answer that comes piece by piece, or one that is there at once (a refusal). */
export type Streamed<T> = { readonly pieces: Pieces; readonly begin: () => void } | { readonly answer: T }

/**
 * Answers with pieces that are read from the database as they are sent: one moment of it, however long the sending
 * takes, and never more of it in memory than a piece. A reader who goes away ends the reading.
 */
export async function streamWithin<T>(
  event: H3Event,
  work: (within: Within) => Promise<Streamed<T>>,
): Promise<Readable | T> {
  const out = new PassThrough()
  return new Promise<Readable | T>((resolve, reject) => {
    const whole = actingAs(
      database(),
      actorOf(event),
      async (within) => {
        const streamed = await work(within)
        if ('answer' in streamed) {
          resolve(streamed.answer)
          return
        }
        streamed.begin()
        resolve(packed(event, out))
        await pipeline(Readable.from(streamed.pieces), out)
      },
      'repeatable read',
    )
    whole.catch((error: unknown) => {
      out.destroy(error as Error)
      reject(error as Error)
    })
  })
}

/** Packed on its way for whoever can unpack it: a garden's signal is thin. */
function packed(event: H3Event, out: PassThrough): Readable {
  if (!/\bgzip\b/.test(getRequestHeader(event, 'accept-encoding') ?? '')) return out
  setResponseHeader(event, 'content-encoding', 'gzip')
  setResponseHeader(event, 'vary', 'accept-encoding')
  const gzip = createGzip({ level: 5 })
  out.once('error', (error) => gzip.destroy(error))
  gzip.once('close', () => out.destroy())
  return out.pipe(gzip)
}
