import { ref } from 'vue'
import { MOST_BYTES, readGeoJson, readGpx, writeGeoJson, writeGpx, type Carried } from '../../core/formats'
import { takeIn } from '../../core/map'
import { refusal, refused } from '../../core/refusal'
import { saveText } from '../lib/save'
import type { useWiringPage } from './useWiringPage'

const TYPES = { geojson: 'application/geo+json', gpx: 'application/gpx+xml' } as const

/** The map in and out in open formats; `told` says what was taken in and what a format could not carry. */
export function useMapFiles({ site, t, keep, doing }: ReturnType<typeof useWiringPage>) {
  const told = ref<string[]>([])
  const leftText = (left: Carried<unknown>['left']) =>
    left.length === 0
      ? []
      : [t('carried.title', { list: left.map((l) => t(`carried.${l.code}`, { count: l.count })).join(', ') })]

  function save(format: keyof typeof TYPES): void {
    const written = format === 'geojson' ? writeGeoJson(site.value) : writeGpx(site.value)
    if (!written.ok) {
      doing(written)
      return
    }
    doing({ ok: true, value: [] })
    told.value = leftText(written.value.left)
    saveText(`${site.value.about.name}.${format}`, written.value.value, TYPES[format])
  }
  /** Resolves true where the file was taken in. */
  async function open(file: File): Promise<boolean> {
    if (file.size > MOST_BYTES) return keep(refused(refusal('too_large')))
    const text = await file.text()
    const read = text.trimStart().startsWith('<') ? readGpx(text) : readGeoJson(text)
    if (!read.ok) return keep(read)
    const { commands, moved, added, routed, newCables, left } = takeIn(site.value, read.value.value)
    if (!(await keep({ ok: true, value: commands }))) return false
    told.value = [
      commands.length === 0 ? t('map.nothingNew') : t('map.took', { moved, added, routed, newCables }),
      ...(left.length > 0 ? [t('map.leftOut', { names: left.join(', ') })] : []),
      ...leftText(read.value.left),
    ]
    return true
  }
  return { told, save, open }
}
