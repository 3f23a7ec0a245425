import { v7 } from 'uuid'
import * as z from 'zod'
import { understood, type Reply } from './api'

const taken = z.object({ id: z.uuid() })
const progress = z.object({ done: z.number(), of: z.number() })

/** How far a file is: on its way, or being taken in; from 0 to 1. */
export interface UploadProgress {
  readonly stage: 'sending' | 'taking'
  readonly ratio: number
}

export interface Upload {
  readonly reply: Promise<Reply<{ id: string }> | 'stopped'>
  readonly stop: () => void
}

/** Taking in is asked after this often. */
const ASK_ms = 400

/**
 * Sends a property's file, or a zip of one, as it lies on the disk: it is never read into the page.
 * @param copyName takes it in as a copy under this name
 */
export function uploadProperty(
  file: Blob,
  zip: boolean,
  copyName: string | null,
  tell: (progress: UploadProgress) => void,
): Upload {
  const token = v7()
  const query = new URLSearchParams({ token, ...(copyName === null ? {} : { as: 'copy', name: copyName }) })
  // Of all ways to send, only this one tells how far it is.
  const request = new XMLHttpRequest()
  let asking: ReturnType<typeof setInterval> | undefined
  const reply = new Promise<Reply<{ id: string }> | 'stopped'>((resolve) => {
    const end = (answer: Reply<{ id: string }> | 'stopped') => {
      clearInterval(asking)
      resolve(answer)
    }
    request.upload.onprogress = ({ loaded, total }) => tell({ stage: 'sending', ratio: total > 0 ? loaded / total : 0 })
    request.upload.onload = () => {
      tell({ stage: 'taking', ratio: 0 })
      asking = setInterval(() => void askAfter(token, tell), ASK_ms)
    }
    request.onload = () => end(understood(taken, request.status, jsonOf(request.responseText)))
    request.onerror = () => end({ kind: 'unreachable' })
    request.onabort = () => end('stopped')
  })
  request.open('POST', `/api/properties?${query}`)
  request.setRequestHeader('content-type', zip ? 'application/zip' : 'application/json')
  request.send(file)
  return { reply, stop: () => request.abort() }
}

async function askAfter(token: string, tell: (progress: UploadProgress) => void): Promise<void> {
  const reply = await fetch(`/api/intakes/${token}`).catch(() => null)
  const parsed = reply?.ok ? progress.safeParse(await reply.json().catch(() => null)) : null
  if (parsed?.success) tell({ stage: 'taking', ratio: parsed.data.done / Math.max(1, parsed.data.of) })
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}
