<script setup lang="ts">
import { controllerFor } from '../../../core/procedure'
import { MOST_CORES } from '../../../core/record'
import { byTag, entries, tagAndName, type CableId, type PlaceId } from '../../../core/site'
import { useBeginWork } from '../../composables/useBeginWork'
import { useCoresWords } from '../../composables/useCores'
import { authorName, rememberAuthor } from '../../lib/device'
import { figureIn } from '../../lib/figures'
import { namesIn } from '../../lib/names'
import type { Option } from '../../lib/options'
import { useProperty } from '../../stores/property'

/** Which cable is to be told apart: on record or not, between which places, with how many cores. */
const visible = defineModel<boolean>('visible', { required: true })
const emit = defineEmits<{ begun: [job: string] }>()
const property = useProperty()
const { t } = useCoresWords()
const { beginJob, underWay } = useBeginWork()

const places = computed(() => entries(property.site!.places).sort(([, a], [, b]) => byTag(a.tag, b.tag)))
const cables = computed(() =>
  entries(property.site!.cables)
    .filter(([, c]) => c.kind !== 'jumper' && Object.keys(c.cores).length > 1)
    .sort(([, a], [, b]) => byTag(a.tag ?? '', b.tag ?? '')),
)
const cableOptions = computed((): Option<CableId | null>[] => [
  { value: null, label: t('cores.notOnRecord') },
  ...cables.value.map(([value, c]) => ({ value, label: tagAndName(c) })),
])
const cable = ref<CableId | null>(null)
const record = computed(() => cables.value.find(([id]) => id === cable.value)?.[1] ?? null)
const placeOptions = computed((): Option<PlaceId>[] =>
  places.value
    .filter(([id]) => record.value === null || record.value.stops.some((s) => s.place === id))
    .map(([value, p]) => ({ value, label: tagAndName(p) })),
)
const first = ref(places.value[0]?.[0] as PlaceId)
const second = ref((places.value[1] ?? places.value[0])?.[0] as PlaceId)
const [number, author, others] = [ref(''), ref(authorName()), ref('')]
watch(record, (now) => {
  if (!now) return
  first.value = now.stops[0]!.place
  second.value = now.stops.at(-1)!.place
  number.value = String(Object.keys(now.cores).length)
})
const bad = ref<{ number?: string; places?: string; job?: string }>({})

async function begin(): Promise<void> {
  const cores = figureIn(number.value, 2, MOST_CORES)
  bad.value = {
    ...(cores === null || !Number.isInteger(cores) ? { number: t('cores.numberBad') } : {}),
    ...(first.value === second.value ? { places: t('cores.placesBad') } : {}),
  }
  if (Object.keys(bad.value).length > 0) return
  rememberAuthor(author.value.trim().slice(0, 80))
  const sorts = { cable: cable.value, cores: cores!, first: first.value, second: second.value }
  const controller = controllerFor(property.site!, { kind: 'box', place: first.value })
  const job = await beginJob({ kind: 'cores', sorts }, controller, namesIn(others.value))
  if (job === null) bad.value = { job: t('procedures.noController') }
  else emit('begun', job)
}
</script>

<template>
  <AppDialog v-model:visible="visible" :title="t('cores.start')">
    <p v-if="places.length < 2">{{ t('cores.noPlaces') }}</p>
    <form v-else class="stack" novalidate @submit.prevent="begin">
      <PickOne id="cores-cable" v-model="cable" :label="t('cores.cable')" :options="cableOptions" />
      <div class="ends">
        <PickOne id="cores-first" v-model="first" :label="t('cores.from')" :options="placeOptions" />
        <PickOne id="cores-second" v-model="second" :label="t('cores.to')" :options="placeOptions">
          <p v-if="bad.places" class="bad" role="alert">{{ bad.places }}</p>
        </PickOne>
      </div>
      <div class="field">
        <label for="cores-number">{{ t('cores.number') }}</label>
        <TextField
          id="cores-number"
          v-model="number"
          inputmode="numeric"
          :readonly="record !== null"
          :aria-invalid="!!bad.number"
        />
        <p v-if="bad.number" class="bad" role="alert">{{ bad.number }}</p>
      </div>
      <div class="field">
        <label for="cores-author">{{ t('procedures.name') }}</label>
        <TextField id="cores-author" v-model="author" maxlength="80" autocomplete="name" />
      </div>
      <div v-if="!underWay" class="field">
        <label for="cores-others">{{ t('procedures.others') }}</label>
        <TextField id="cores-others" v-model="others" maxlength="400" />
      </div>
      <p v-if="bad.job" class="fault" role="alert">{{ bad.job }}</p>
      <div class="row end">
        <AppButton look="plain" @click="visible = false">{{ t('app.cancel') }}</AppButton>
        <AppButton look="primary" type="submit">{{ t('cores.begin') }}</AppButton>
      </div>
    </form>
  </AppDialog>
</template>

<style scoped>
.ends {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
</style>
