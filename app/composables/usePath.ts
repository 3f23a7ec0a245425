import { wrap, type Remote } from 'comlink'
import { useI18n } from 'vue-i18n'
import type { ControllerId } from '../../core/site'
import { pathEn } from '../../words/path-en'
import { pathFindEn } from '../../words/path-find-en'
import { pathRefusalsEn } from '../../words/path-refusals-en'
import type { PathState, PathWork } from '../workers/path'
import { useWiringPage } from './useWiringPage'

let taken = false
/** The site, the words of two-wire paths, which come with their place, and a door for changes. */
export function usePathPage() {
  if (!taken)
    useI18n({ useScope: 'global' }).mergeLocaleMessage('en', { ...pathEn, ...pathFindEn, refusal: pathRefusalsEn })
  taken = true
  return useWiringPage()
}

let worker: Remote<PathWork> | null = null

/** The path of a controller with these numbers on, worked out beside the page. */
export function usePathVolts(controller: () => ControllerId, numbers: () => readonly number[], isWorst: () => boolean) {
  const { site } = useWiringPage()
  return useLatest<PathState | null>(
    () => [site.value, controller(), numbers(), isWorst()],
    () => {
      worker ??= wrap<PathWork>(new Worker(new URL('../workers/path.ts', import.meta.url), { type: 'module' }))
      return worker.volts(JSON.parse(JSON.stringify(site.value)), controller(), [...numbers()], isWorst())
    },
  )
}
