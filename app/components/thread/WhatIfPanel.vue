<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { inUnit, toMetres, type Units } from '../../../core/quantity'
import type { WhatIf } from '../../../core/sizing'
import type { CoilKind, Site } from '../../../core/site'
import { temperatureMeant, temperatureShown } from '../../lib/figures'

/** Sliders and choices that change nothing on record: what the property would be. */
const what = defineModel<WhatIf>({ required: true })
const props = defineProps<{ site: Site; units: Units }>()
const { t } = useI18n()
const set = (more: Partial<WhatIf>) => {
  what.value = Object.fromEntries(Object.entries({ ...what.value, ...more }).filter(([, v]) => v !== undefined))
}
const number = (event: Event) => Number((event.target as HTMLInputElement).value)
const span = computed(() => (props.units.length === 'ft' ? 500 : 150))
const moved = computed(() => Math.round(inUnit(what.value.moved_m ?? 0, props.units.length)))
const hottest = computed(() => what.value.hottest_C ?? props.site.settings.sizing.hottest_C)

/** Typical coils of no particular maker; a sheet's own figures go into the property's coil kinds. */
const COILS: Record<string, CoilKind> = Object.fromEntries(
  (
    [
      ['low', 52, 0.25, 0.19],
      ['usual', 33, 0.4, 0.23],
      ['high', 24, 0.6, 0.35],
    ] as const
  ).map(([name, resistance_ohm, inrush_A, holding_A]) => [
    name,
    {
      name,
      current: 'ac',
      resistance_ohm,
      rated_V: 24,
      rated_Hz: 60,
      inrush_A,
      holding_A,
      inrush_pf: null,
      holding_pf: null,
      minimum_V: 19,
      holdMinimum_V: 15,
    },
  ]),
)
const RATINGS_VA = [20, 30, 40, 50, 60, 75, 100]
const changed = computed(() => Object.keys(what.value).length > 0)
</script>

<template>
  <section class="sheet stack panel" :class="{ changed }" :aria-label="t('whatIf.title')">
    <div class="row between">
      <h2>{{ t('whatIf.title') }}</h2>
      <button type="button" class="button plain" :disabled="!changed" @click="what = {}">{{ t('whatIf.back') }}</button>
    </div>
    <div class="field">
      <label for="w-moved">
        {{ t('whatIf.moved') }}
        <strong class="figure">{{ moved > 0 ? '+' : '' }}{{ moved }} {{ units.length }}</strong>
      </label>
      <input
        id="w-moved"
        type="range"
        :min="-span"
        :max="span"
        :step="units.length === 'ft' ? 10 : 5"
        :value="moved"
        @input="set({ moved_m: toMetres(number($event), units.length) })"
      />
    </div>
    <div class="two">
      <div class="field">
        <label for="w-added">
          {{ t('whatIf.added') }}
          <strong class="figure">{{ what.added?.count ?? 0 }}</strong>
        </label>
        <input
          id="w-added"
          type="range"
          min="0"
          max="6"
          :value="what.added?.count ?? 0"
          @input="set({ added: { count: number($event), beyond_m: what.added?.beyond_m ?? 30 } })"
        />
      </div>
      <div class="field">
        <label for="w-beyond">
          {{ t('whatIf.beyond') }}
          <strong class="figure">
            {{ Math.round(inUnit(what.added?.beyond_m ?? 30, units.length)) }} {{ units.length }}
          </strong>
        </label>
        <input
          id="w-beyond"
          type="range"
          min="5"
          :max="span"
          step="5"
          :value="inUnit(what.added?.beyond_m ?? 30, units.length)"
          :disabled="!what.added?.count"
          @input="set({ added: { count: what.added?.count ?? 1, beyond_m: toMetres(number($event), units.length) } })"
        />
      </div>
    </div>
    <div class="field">
      <label for="w-hot">
        {{ t('whatIf.hottest') }}
        <strong class="figure">
          {{ Math.round(Number(temperatureShown(hottest, units))) }} °{{ units.temperature }}
        </strong>
      </label>
      <input
        id="w-hot"
        type="range"
        :min="units.temperature === 'F' ? 32 : 0"
        :max="units.temperature === 'F' ? 140 : 60"
        step="1"
        :value="temperatureShown(hottest, units)"
        @input="set({ hottest_C: temperatureMeant(number($event), units) })"
      />
    </div>
    <div class="two">
      <div class="field">
        <label for="w-together">{{ t('whatIf.together') }}</label>
        <select
          id="w-together"
          class="input"
          :value="what.together ?? site.settings.sizing.together"
          @change="set({ together: number($event) })"
        >
          <option v-for="n in 4" :key="n" :value="n">{{ n }}</option>
        </select>
      </div>
      <div class="field">
        <label for="w-hz">{{ t('whatIf.hz') }}</label>
        <select
          id="w-hz"
          class="input"
          :value="what.mains_Hz ?? site.settings.mains_Hz"
          @change="set({ mains_Hz: number($event) as 50 | 60 })"
        >
          <option :value="50">50 Hz</option>
          <option :value="60">60 Hz</option>
        </select>
      </div>
      <div class="field">
        <label for="w-coil">{{ t('whatIf.coil') }}</label>
        <select
          id="w-coil"
          class="input"
          :value="what.coil?.name ?? ''"
          @change="set({ coil: COILS[($event.target as HTMLSelectElement).value] })"
        >
          <option value="">{{ t('whatIf.asIs') }}</option>
          <option v-for="(c, name) in COILS" :key="name" :value="name">
            {{ t(`whatIf.coils.${name}`) }}, {{ c.inrush_A }} A
          </option>
        </select>
      </div>
      <div class="field">
        <label for="w-va">{{ t('whatIf.transformer') }}</label>
        <select
          id="w-va"
          class="input"
          :value="what.rating_VA ?? ''"
          @change="set({ rating_VA: ($event.target as HTMLSelectElement).value === '' ? undefined : number($event) })"
        >
          <option value="">{{ t('whatIf.asIs') }}</option>
          <option v-for="va in RATINGS_VA" :key="va" :value="va">{{ va }} VA</option>
        </select>
      </div>
    </div>
    <p class="quiet small">{{ t('whatIf.how') }}</p>
  </section>
</template>

<style scoped>
.panel {
  gap: 12px;
}
.panel.changed {
  border-color: var(--copper);
}
.between {
  justify-content: space-between;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
input[type='range'] {
  width: 100%;
  accent-color: var(--copper);
  min-height: 28px;
}
label {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
.small {
  font-size: 13px;
}
@media (max-width: 759px) {
  .small {
    font-size: 15px;
  }
  input[type='range'] {
    min-height: 48px;
  }
}
</style>
