<script setup lang="ts">
import {
  getOrThrow,
  setField,
  type Command,
  type FieldOf,
  type Point,
  type Site,
  type UnderlayId,
  type ValueOf,
} from '../../../core/site'
import { whereIs } from '../../../core/map'
import { refusal, refused, type Outcome } from '../../../core/refusal'
import { inUnit, parseLength } from '../../../core/quantity'
import { useWiringWords } from '../../composables/useWiringWords'
import { signedLength_m } from '../../lib/signed-length'

/** The picture under the map: how strong, how wide, and the two ties that scale and turn it. */
const props = defineProps<{
  site: Site
  id: UnderlayId
  fixed: boolean
  here: boolean
  waits: boolean
  spot: { px: number; py: number } | null
  tying: boolean
}>()
const emit = defineEmits<{ keep: [outcome: Outcome<Command[]>]; tie: []; tied: [] }>()
const { t } = useWiringWords(() => props.site.settings.units)
const record = computed(() => getOrThrow(props.site.underlays, props.id))
const unit = computed(() => props.site.settings.units.length)
const set = <F extends FieldOf<'underlays'>>(field: F, value: ValueOf<'underlays', F>) =>
  emit('keep', { ok: true, value: [setField('underlays', props.id, field, value)] })
const valueOf = (event: Event) => (event.target as HTMLInputElement).value
const placed = computed(() =>
  Object.entries(props.site.places).flatMap(([id, p]) => {
    const at = whereIs(p!)
    return at ? [{ id, tag: p!.tag, at }] : []
  }),
)
const [at, x, y] = [ref(''), ref(''), ref('')]
const metres = (text: string) => signedLength_m(text, unit.value)
function tie(): void {
  const found: Point | null = placed.value.find((p) => p.id === at.value)?.at ?? null
  const [x_m, y_m] = found ? [found.x_m, found.y_m] : [metres(x.value), metres(y.value)]
  if (x_m === null || y_m === null) {
    emit(
      'keep',
      refused(
        refusal('not_a_length', [x_m === null ? t('map.x') : t('map.y')], { text: x_m === null ? x.value : y.value }),
      ),
    )
    return
  }
  set('ties', [...record.value.ties.slice(-1), { ...props.spot!, at: { x_m, y_m } }])
  at.value = x.value = y.value = ''
  emit('tied')
}
function setWidth(event: Event): void {
  const m = parseLength(valueOf(event), unit.value)
  if (m !== null && m > 0) set('width_m', m)
  else emit('keep', refused(refusal('not_a_length', [t('map.width')], { text: valueOf(event) })))
}
</script>

<template>
  <section class="sheet stack">
    <h2>
      {{ t('map.picture') }}
      <span class="quiet">{{ record.name }}</span>
    </h2>
    <p v-if="!here" class="doubtful">{{ t('map.missing') }}</p>
    <p v-if="waits" class="quiet">{{ t('map.kept') }}</p>
    <div class="field">
      <label for="u-strong">{{ t('map.opacity') }}</label>
      <input
        id="u-strong"
        type="range"
        min="0.1"
        max="1"
        step="0.1"
        :value="record.opacity"
        :disabled="fixed"
        @change="set('opacity', Number(valueOf($event)))"
      />
    </div>
    <p class="quiet">{{ t('map.ties', { count: record.ties.length }) }}. {{ t('map.tieHow') }}</p>
    <p v-if="!fixed" class="row">
      <button type="button" class="button" :class="{ primary: tying && !spot }" :disabled="!here" @click="emit('tie')">
        {{ tying && !spot ? t('map.clickSpot') : t('map.tie') }}
      </button>
      <button v-if="record.ties.length > 0" type="button" class="button" @click="set('ties', record.ties.slice(0, -1))">
        {{ t('map.untie') }}
      </button>
    </p>
    <form v-if="spot" class="row add" @submit.prevent="tie">
      <label for="u-at">{{ t('map.spotAt') }}</label>
      <select id="u-at" v-model="at" class="input">
        <option value="">{{ t('map.x') }}, {{ t('map.y') }}</option>
        <option v-for="p in placed" :key="p.id" :value="p.id">{{ p.tag }}</option>
      </select>
      <template v-if="at === ''">
        <input v-model="x" class="input figure few" :placeholder="t('map.x')" :aria-label="`${t('map.x')}, ${unit}`" />
        <input v-model="y" class="input figure few" :placeholder="t('map.y')" :aria-label="`${t('map.y')}, ${unit}`" />
      </template>
      <button type="submit" class="button primary">{{ t('map.here') }}</button>
    </form>
    <div v-if="record.ties.length < 2" class="field">
      <label for="u-wide">{{ t('map.width') }}, {{ unit }}</label>
      <TextField
        id="u-wide"
        class="input figure"
        inputmode="decimal"
        :model-value="String(Math.round(inUnit(record.width_m, unit) * 10) / 10)"
        :readonly="fixed"
        @change="setWidth"
      />
    </div>
    <p v-if="!fixed">
      <button
        type="button"
        class="button plain"
        @click="emit('keep', { ok: true, value: [{ do: 'remove', in: 'underlays', id }] })"
      >
        {{ t('map.remove') }}
      </button>
    </p>
  </section>
</template>

<style scoped>
.stack {
  gap: 8px;
}
.add {
  gap: 6px;
}
.add .input {
  width: auto;
}
.add .few {
  width: 84px;
}
</style>
