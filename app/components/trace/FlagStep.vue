<script setup lang="ts">
import { toLocal, whereIs } from '../../../core/map'
import { toMetres } from '../../../core/quantity'
import type { Marked } from '../../../core/record'
import { byTag, entries, type PlaceId, type Point } from '../../../core/site'
import { walked, walkedWithin_m } from '../../../core/trace'
import type { TraceWorkHere } from '../../composables/useTrace'
import { atDistances } from '../../lib/bearing'
import { figureIn } from '../../lib/figures'

/**
 * Flags on the way: by tapping the map, by the phone’s own position, by steps from where one stood, or by two
 * distances from places that are known.
 */
const props = defineProps<{ work: TraceWorkHere; tapped: Point | null }>()
const { t, property, units, metres, write, takeBack, flags } = props.work
type By = Extract<Marked, { kind: 'way' }>['by']
const by = ref<By>('map')
const said = ref('')
const bad = ref('')
watch(by, () => {
  said.value = ''
  bad.value = ''
})
const put = (at: Point, how: By, within_m: number) => write({ kind: 'way', at, by: how, within_m, note: '' })
watch(
  () => props.tapped,
  (at) => {
    if (at && by.value === 'map') void put(at, 'map', 1)
  },
)

function here(): void {
  const { origin } = property.site!.about
  if (origin === null) {
    bad.value = t('trace.noOrigin')
    return
  }
  navigator.geolocation.getCurrentPosition(
    ({ coords }) => {
      bad.value = ''
      said.value = t('trace.phoneWithin', { within: metres(coords.accuracy, 0) })
      const at = toLocal(origin, { latitude_deg: coords.latitude, longitude_deg: coords.longitude })
      void put(at, 'phone', Math.min(1000, coords.accuracy))
    },
    () => {
      bad.value = t('trace.phoneBad')
    },
    { enableHighAccuracy: true, timeout: 20_000 },
  )
}

const places = computed(() =>
  entries(property.site!.places)
    .filter(([, p]) => p.found === 'found' && whereIs(p))
    .sort(([, a], [, b]) => byTag(a.tag, b.tag)),
)
const options = computed(() => places.value.map(([value, p]) => ({ value, label: p.tag })))
const [first, second] = [ref(places.value[0]?.[0] as PlaceId), ref(places.value[1]?.[0] as PlaceId)]
const [firstText, secondText, side] = [ref(''), ref(''), ref<'left' | 'right'>('left')]
async function two(): Promise<void> {
  const unit = units.value.length
  const [a, b] = [figureIn(firstText.value, 0, 2000), figureIn(secondText.value, 0, 2000)]
  const spot = (id: PlaceId) => whereIs(places.value.find(([p]) => p === id)![1])!
  const at =
    a === null || b === null
      ? null
      : atDistances(spot(first.value), spot(second.value), [toMetres(a, unit), toMetres(b, unit)], side.value)
  bad.value = at ? '' : t('trace.flagBad')
  if (!at) return
  await put(at, 'offsets', 0.3)
  firstText.value = ''
  secondText.value = ''
}

/** Steps are counted from the last flag, or from a place that is known. */
const LAST = 'last'
const stood = computed(() => [
  ...(flags.value.length > 0 ? [{ value: LAST, label: t('trace.lastFlag') }] : []),
  ...options.value,
])
const chosen = ref('')
const stoodAt = computed({
  get: () => (stood.value.find(({ value }) => value === chosen.value) ?? stood.value[0])?.value ?? '',
  set: (value: string) => {
    chosen.value = value
  },
})
const putWalked = async (distance_m: number, bearing_deg: number | null) => {
  const from =
    stoodAt.value === LAST
      ? flags.value.at(-1)?.marked.at
      : whereIs(places.value.find(([p]) => p === stoodAt.value)![1])
  if (!from || bearing_deg === null) return
  await put(walked(from, distance_m, bearing_deg), 'paces', walkedWithin_m(distance_m))
  stoodAt.value = LAST
}
</script>

<template>
  <div class="stack">
    <p class="quiet">{{ t('trace.flagHow') }}</p>
    <PickBar
      v-model="by"
      :label="t('trace.flags')"
      :options="[
        { value: 'map', label: t('trace.flagMap') },
        { value: 'phone', label: t('trace.flagPhone') },
        { value: 'paces', label: t('trace.flagPaces') },
        { value: 'offsets', label: t('trace.flagTwo') },
      ]"
    />
    <AppButton v-if="by === 'phone'" @click="here">{{ t('trace.flagPut') }}</AppButton>
    <template v-if="by === 'paces' && stood.length > 0">
      <PickOne id="flag-from" v-model="stoodAt" :label="t('trace.stoodAt')" :options="stood" />
      <PacedWalk directed :label="t('trace.flagPut')" @walked="putWalked" />
    </template>
    <form v-if="by === 'offsets'" class="stack" novalidate @submit.prevent="two">
      <div class="two">
        <PickOne id="flag-first" v-model="first" :label="t('trace.flagFirst')" :options="options" />
        <div class="field">
          <label for="flag-first-m">{{ t('trace.flagDistance', { unit: units.length }) }}</label>
          <TextField id="flag-first-m" v-model="firstText" inputmode="decimal" />
        </div>
        <PickOne id="flag-second" v-model="second" :label="t('trace.flagSecond')" :options="options" />
        <div class="field">
          <label for="flag-second-m">{{ t('trace.flagDistance', { unit: units.length }) }}</label>
          <TextField id="flag-second-m" v-model="secondText" inputmode="decimal" />
        </div>
      </div>
      <PickRadio
        v-model="side"
        :label="t('trace.flagSide')"
        :options="(['left', 'right'] as const).map((value) => ({ value, label: t(`trace.flagSides.${value}`) }))"
      />
      <AppButton type="submit">{{ t('trace.flagPut') }}</AppButton>
    </form>
    <p v-if="bad" class="fault" role="alert">{{ bad }}</p>
    <p v-if="said" class="quiet" role="status">{{ said }}</p>
    <p v-if="flags.length > 0" class="row">
      {{ t('trace.flagged', { count: flags.length }) }}
      <AppButton look="plain" @click="takeBack(['way'])">{{ t('trace.takeBack') }}</AppButton>
    </p>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
