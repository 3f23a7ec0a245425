import { wrap, type Remote } from 'comlink'
import type { Facts } from '../../core/record'
import type { Site } from '../../core/site'
import { useProperty } from '../stores/property'
import type { ThreadsWork } from '../workers/threads'
import { useLatest } from './useLatest'

let worker: Remote<ThreadsWork> | null = null
const working = () =>
  (worker ??= wrap<ThreadsWork>(new Worker(new URL('../workers/threads.ts', import.meta.url), { type: 'module' })))

/**
 * What the readings say by themselves: threads that read a fault last, and those that creep;
 * worked out beside the page.
 */
export function useReadFindings() {
  const property = useProperty()
  const { found, behind } = useLatest(
    () => [property.site, property.facts],
    () => working().read(...(JSON.parse(JSON.stringify([property.site, property.facts])) as [Site, Facts])),
  )
  return { found, behind }
}
