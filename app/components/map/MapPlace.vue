<script setup lang="ts">
import { inUnit, lengthText } from '../../../core/quantity'
import { placeCommands, removePlaceCommands, stray_m } from '../../../core/map'
import {
  getOrThrow,
  setField,
  type Command,
  type FieldOf,
  type PlaceId,
  type Site,
  type ValueOf,
} from '../../../core/site'
import { refusal, refused, type Outcome } from '../../../core/refusal'
import { unbroken } from '../../composables/useSpeaker'
import { useWiringWords } from '../../composables/useWiringWords'
import { signedLength_m } from '../../lib/signed-length'
import { today } from '../../lib/today'
import { valueOf } from '../../lib/fields'
import { optionsOf } from '../../lib/options'

/** A place as it is on the map: where it was drawn, where it was found, in figures that can be typed. */
const props = defineProps<{ site: Site; place: PlaceId; property: string; fixed: boolean }>()
const emit = defineEmits<{ keep: [outcome: Outcome<Command[]>] }>()
const { t } = useWiringWords(() => props.site.settings.units)
const record = computed(() => getOrThrow(props.site.places, props.place))
const unit = computed(() => props.site.settings.units.length)
const stray = computed(() => stray_m(record.value))
const rows = computed(() => [
  { as: 'drawn' as const, label: t('map.drawnAt'), at: record.value.position?.value ?? null },
  { as: 'found' as const, label: t('map.found'), at: record.value.foundAt?.value ?? null },
])
const shown = (m: number | undefined) => (m === undefined ? '' : String(Math.round(inUnit(m, unit.value) * 100) / 100))
const typed = reactive<Record<string, string>>({})
watch(
  () => props.place,
  () => {
    for (const k of Object.keys(typed)) delete typed[k]
  },
)
const metres = (text: string) => signedLength_m(text, unit.value)
function put(as: 'drawn' | 'found', at: { x_m: number; y_m: number } | null): void {
  const [x, y] = [typed[`${as} x`] ?? shown(at?.x_m), typed[`${as} y`] ?? shown(at?.y_m)]
  const [x_m, y_m] = [metres(x), metres(y)]
  if (x_m === null || y_m === null) {
    emit(
      'keep',
      refused(refusal('not_a_length', [x_m === null ? t('map.x') : t('map.y')], { text: x_m === null ? x : y })),
    )
    return
  }
  emit('keep', { ok: true, value: placeCommands(props.site, props.place, { x_m, y_m }, as, today()) })
  for (const k of Object.keys(typed)) delete typed[k]
}
const set = <F extends FieldOf<'places'>>(field: F, value: ValueOf<'places', F>) =>
  emit('keep', { ok: true, value: [setField('places', props.place, field, value)] })
</script>

<template>
  <section :key="place" class="sheet stack">
    <div class="row head">
      <h2>
        <span class="figure">{{ record.tag }}</span>
        {{ ' ' }}
        <span class="quiet">{{ record.name }}</span>
      </h2>
      <NuxtLink class="button plain" :to="`/p/${property}/boxes/${place}`">{{ t('boxes.details') }} →</NuxtLink>
    </div>
    <div class="row two">
      <div class="field">
        <label for="mp-tag">{{ t('plan.cell.box') }}</label>
        <TextField
          id="mp-tag"
          class="input figure"
          :model-value="record.tag"
          :readonly="fixed"
          @change="set('tag', valueOf($event).trim())"
        />
      </div>
      <PickOne
        id="mp-kind"
        :model-value="record.kind"
        :disabled="fixed"
        :label="t('map.placeKind')"
        :options="optionsOf(['valve_box', 'junction_box', 'cabinet', 'other'], (k) => t(`boxes.kind.${k}`))"
        @update:model-value="set('kind', $event)"
      />
      <PickOne
        id="mp-found"
        :model-value="record.found"
        :disabled="fixed"
        :label="t('map.at')"
        :options="optionsOf(['found', 'expected', 'lost'], (f) => t(`boxes.found.${f}`))"
        @update:model-value="set('found', $event)"
      />
    </div>
    <form v-for="r in rows" :key="r.as" class="row spot" @submit.prevent="put(r.as, r.at)">
      <strong>{{ r.label }}</strong>
      <TextField
        v-for="axis in ['x', 'y'] as const"
        :key="axis"
        class="figure"
        inputmode="text"
        :model-value="typed[`${r.as} ${axis}`] ?? shown(axis === 'x' ? r.at?.x_m : r.at?.y_m)"
        :placeholder="`${t(`map.${axis}`)}, ${unit}`"
        :aria-label="`${r.label}: ${t(`map.${axis}`)}, ${unit}`"
        :readonly="fixed"
        @input="typed[`${r.as} ${axis}`] = valueOf($event)"
      />
      <AppButton v-if="!fixed" type="submit" class="slim">{{ t('map.here') }}</AppButton>
    </form>
    <p v-if="!fixed">
      <AppButton look="plain" @click="emit('keep', removePlaceCommands(site, place))">
        {{ t('map.takeAway') }}
      </AppButton>
    </p>
    <p v-if="stray !== null" class="quiet">
      {{ t('map.stray', { m: unbroken(lengthText(stray, site.settings.units)) }) }}
    </p>
  </section>
</template>

<style scoped>
.stack {
  gap: 8px;
}
.head {
  justify-content: space-between;
}
.two {
  gap: 8px;
}
.two .field {
  flex: 1 1 112px;
}
.two .field:first-child {
  flex: 0 1 72px;
}
.spot {
  gap: 6px;
}
.spot strong {
  flex-basis: 100%;
  font-size: 13px;
}
.spot .input {
  width: 86px;
}
.slim {
  min-height: 38px;
  padding: 4px 10px;
}
</style>
