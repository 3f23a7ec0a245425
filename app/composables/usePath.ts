import { wrap, type Remote } from 'comlink'
import { useI18n } from 'vue-i18n'
import type { PathMargin } from '../../core/path'
import type { ControllerId, DeviceId, Site } from '../../core/site'
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
const working = () =>
  (worker ??= wrap<PathWork>(new Worker(new URL('../workers/path.ts', import.meta.url), { type: 'module' })))
const plain = (site: Site): Site => JSON.parse(JSON.stringify(site)) as Site

/** The path of a controller with these numbers on, worked out beside the page. */
export function usePathVolts(controller: () => ControllerId, numbers: () => readonly number[], isWorst: () => boolean) {
  const { site } = useWiringPage()
  return useLatest<PathState | null>(
    () => [site.value, controller(), numbers(), isWorst()],
    () => working().volts(plain(site.value), controller(), [...numbers()], isWorst()),
  )
}

/** Every decoder and starting coil of a path at its worst moment, on a property as it is or would be. */
export const usePathMargins = (site: () => Site, controller: () => ControllerId) =>
  useLatest<PathMargin[] | null>(
    () => [site(), controller()],
    () => working().margins(plain(site()), controller()),
  )

/** Volts at the decoder of every output of a path while it starts, by decoder and port. */
export const usePathRunning = (controller: () => ControllerId) => {
  const { site } = useWiringPage()
  return useLatest(
    () => [site.value, controller()],
    () => working().running(plain(site.value), controller()),
  )
}

/** The way to one output of a path. */
export const usePathAlong = (
  controller: () => ControllerId,
  output: () => { decoder: DeviceId; port: string } | null,
) => {
  const { site } = useWiringPage()
  return useLatest(
    () => [site.value, controller(), output()],
    () => {
      const asked = output()
      return asked && working().along(plain(site.value), controller(), asked.decoder, asked.port)
    },
  )
}
