import { wrap, type Remote } from 'comlink'
import type { HuntWork } from '../workers/hunt'

let at: { worker: Worker; hunts: Remote<HuntWork> } | null = null

/** Where hunts are weighed, begun when it is first asked for. */
export function huntWorker(): Remote<HuntWork> {
  if (!at) {
    const worker = new Worker(new URL('../workers/hunt.ts', import.meta.url), { type: 'module' })
    at = { worker, hunts: wrap<HuntWork>(worker) }
  }
  return at.hunts
}

/** Gives up what is being weighed; what was asked is never answered. */
export function stopHuntWorker(): void {
  at?.worker.terminate()
  at = null
}
