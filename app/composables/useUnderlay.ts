import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { refusal, refused } from '../../core/refusal'
import { entries, type UnderlayId } from '../../core/site'
import { pictureOf, sendPictures, takePicture } from '../lib/pictures'
import type { useWiringPage } from './useWiringPage'

/** The picture under the map: its record, the picture itself once it is here, and whether it waits to be sent. */
export function useUnderlay(property: string, { site, keep, doing }: ReturnType<typeof useWiringPage>) {
  const under = computed(() => {
    const first = entries(site.value.underlays)[0]
    return first ? { id: first[0] as UnderlayId, record: first[1] } : null
  })
  const picture = shallowRef<ImageBitmap | null>(null)
  const waits = ref(false)

  async function sendAll(): Promise<void> {
    waits.value = (await sendPictures(property).catch(() => 1)) > 0
  }
  watch(
    () => under.value?.record.sha256,
    async (sha256) => {
      picture.value?.close()
      picture.value = null
      if (!sha256) return
      const blob = await pictureOf(property, sha256).catch(() => null)
      if (blob && under.value?.record.sha256 === sha256) picture.value = await createImageBitmap(blob).catch(() => null)
      await sendAll()
    },
    { immediate: true },
  )
  const again = () => void sendAll()
  onMounted(() => window.addEventListener('online', again))
  onBeforeUnmount(() => {
    window.removeEventListener('online', again)
    picture.value?.close()
  })

  /** Lays a picture under the map in place of the one before; resolves true where it is kept. */
  async function open(file: File): Promise<boolean> {
    const taken = await takePicture(property, file)
    if (!taken) {
      doing(refused(refusal('not_a_picture', [], { limit: 5 })))
      return false
    }
    const record = { name: file.name.slice(0, 120).replace(/[\p{Cc}\p{Cs}]/gu, ''), ...taken }
    const old = under.value ? [{ do: 'remove' as const, in: 'underlays' as const, id: under.value.id }] : []
    let n = 1
    while (site.value.underlays[`picture-${n}` as UnderlayId]) n++
    return keep({ ok: true, value: [...old, { do: 'create', in: 'underlays', id: `picture-${n}`, record }] })
  }
  return { under, picture, waits, open }
}
