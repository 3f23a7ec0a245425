<script setup lang="ts">
import { controllerFor } from '../../../core/procedure'
import { byTag, entries, tagAndName, type CableId, type PlaceId } from '../../../core/site'
import { useBeginWork } from '../../composables/useBeginWork'
import { useTraceWords } from '../../composables/useTrace'
import { authorName, rememberAuthor } from '../../lib/device'
import { namesIn } from '../../lib/names'
import type { Option } from '../../lib/options'
import { useProperty } from '../../stores/property'

/** What the wand follows: a wire of the record from one of its places on, and the box that is looked for. */
const visible = defineModel<boolean>('visible', { required: true })
const emit = defineEmits<{ begun: [job: string] }>()
const property = useProperty()
const { t } = useTraceWords()
const { beginJob, underWay } = useBeginWork()

const place = (id: PlaceId) => property.site!.places[id]!
const called = (id: PlaceId) => tagAndName(place(id))
const boxes = computed((): Option<PlaceId | null>[] => [
  { value: null, label: t('trace.noBox') },
  ...entries(property.site!.places)
    .filter(([, p]) => p.kind !== 'cabinet')
    .sort(([, a], [, b]) => Number(b.found === 'lost') - Number(a.found === 'lost') || byTag(a.tag, b.tag))
    .map(([value]) => ({ value, label: called(value) })),
])
const lost = entries(property.site!.places).find(([, p]) => p.found === 'lost')?.[0] ?? null
const box = ref<PlaceId | null>(lost)
const cables = computed(() =>
  entries(property.site!.cables)
    .filter(([, c]) => c.kind !== 'jumper' && (box.value === null || c.stops.some((s) => s.place === box.value)))
    .sort(([, a], [, b]) => byTag(a.tag ?? '', b.tag ?? '')),
)
const cableOptions = computed((): Option<CableId | null>[] => [
  ...cables.value.map(([value, c]) => ({ value, label: tagAndName(c) })),
  { value: null, label: t('trace.unknown') },
])
const cable = ref<CableId | null>(cables.value[0]?.[0] ?? null)
const record = computed(() => cables.value.find(([id]) => id === cable.value)?.[1] ?? null)
const starts = computed((): Option<PlaceId>[] =>
  (record.value?.stops.slice(0, -1) ?? []).map((s) => ({ value: s.place, label: called(s.place) })),
)
const from = ref<PlaceId | null>(null)
watch(box, () => {
  if (!cables.value.some(([id]) => id === cable.value)) cable.value = cables.value[0]?.[0] ?? null
})
/** From the last place before the box. */
watch(
  [record, box],
  ([now]) => {
    const stops = now?.stops ?? []
    const at = stops.findIndex((s) => s.place === box.value)
    from.value = stops[Math.max(0, at - 1)]?.place ?? null
  },
  { immediate: true },
)
const [author, others, bad] = [ref(authorName()), ref(''), ref('')]
async function begin(): Promise<void> {
  rememberAuthor(author.value.trim().slice(0, 80))
  const start = cable.value === null ? null : from.value
  const controller = controllerFor(
    property.site!,
    cable.value === null ? { kind: 'property' } : { kind: 'cable', cable: cable.value },
  )
  const traces = { cable: cable.value, from: start, box: box.value }
  const job = await beginJob({ kind: 'trace', traces }, controller, namesIn(others.value))
  if (job === null) bad.value = t('procedures.noController')
  else emit('begun', job)
}
</script>

<template>
  <AppDialog v-model:visible="visible" :title="t('trace.start')">
    <form class="stack" novalidate @submit.prevent="begin">
      <PickOne id="trace-box" v-model="box" :label="t('trace.box')" :options="boxes" />
      <PickOne id="trace-cable" v-model="cable" :label="t('trace.cable')" :options="cableOptions" />
      <PickOne v-if="from" id="trace-from" v-model="from" :label="t('trace.from')" :options="starts" />
      <div class="field">
        <label for="trace-author">{{ t('procedures.name') }}</label>
        <TextField id="trace-author" v-model="author" maxlength="80" autocomplete="name" />
      </div>
      <div v-if="!underWay" class="field">
        <label for="trace-others">{{ t('procedures.others') }}</label>
        <TextField id="trace-others" v-model="others" maxlength="400" />
      </div>
      <p v-if="bad" class="fault" role="alert">{{ bad }}</p>
      <div class="row end">
        <AppButton look="plain" @click="visible = false">{{ t('app.cancel') }}</AppButton>
        <AppButton look="primary" type="submit">{{ t('trace.begin') }}</AppButton>
      </div>
    </form>
  </AppDialog>
</template>
