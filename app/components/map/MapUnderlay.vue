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
import { valueOf } from '../../lib/fields'

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
    <SlideBar
      id="u-strong"
      :label="t('map.opacity')"
      :min="0.1"
      :max="1"
      :step="0.1"
      :model-value="record.opacity"
      :disabled="fixed"
      @settled="set('opacity', $event)"
    />
    <p class="quiet">{{ t('map.ties', { count: record.ties.length }) }}. {{ t('map.tieHow') }}</p>
    <p v-if="!fixed" class="row">
      <AppButton :class="{ primary: tying && !spot }" :disabled="!here" @click="emit('tie')">
        {{ tying && !spot ? t('map.clickSpot') : t('map.tie') }}
      </AppButton>
      <AppButton v-if="record.ties.length > 0" @click="set('ties', record.ties.slice(0, -1))">
        {{ t('map.untie') }}
      </AppButton>
    </p>
    <form v-if="spot" class="row add" @submit.prevent="tie">
      <PickOne
        id="u-at"
        v-model="at"
        :label="t('map.spotAt')"
        :options="[
          { value: '', label: `${t('map.x')}, ${t('map.y')}` },
          ...placed.map((p) => ({ value: p.id, label: p.tag })),
        ]"
      />
      <template v-if="at === ''">
        <TextField v-model="x" class="figure few" :placeholder="t('map.x')" :aria-label="`${t('map.x')}, ${unit}`" />
        <TextField v-model="y" class="figure few" :placeholder="t('map.y')" :aria-label="`${t('map.y')}, ${unit}`" />
      </template>
      <AppButton look="primary" type="submit">{{ t('map.here') }}</AppButton>
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
      <AppButton look="plain" @click="emit('keep', { ok: true, value: [{ do: 'remove', in: 'underlays', id }] })">
        {{ t('map.remove') }}
      </AppButton>
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
