<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { inUnit, toMetres, type Units } from '../../../core/quantity'
import type { WhatIf } from '../../../core/sizing'
import type { CoilKind, Site } from '../../../core/site'
import { optionsOf } from '../../lib/options'
import { temperatureMeant, temperatureShown } from '../../lib/figures'

/**
 * Sliders and choices that change nothing on record: what the property would be. `path`: for a two-wire path, whose
 * volts hang neither on the mains’ frequency nor on the transformer’s rating.
 */
const what = defineModel<WhatIf>({ required: true })
const props = defineProps<{ site: Site; units: Units; path?: boolean }>()
const { t } = useI18n()
const set = (more: Partial<WhatIf>) => {
  what.value = Object.fromEntries(Object.entries({ ...what.value, ...more }).filter(([, v]) => v !== undefined))
}
const span = computed(() => (props.units.length === 'ft' ? 500 : 150))
const moved = computed(() => Math.round(inUnit(what.value.moved_m ?? 0, props.units.length)))
const beyond = computed(() => Math.round(inUnit(what.value.added?.beyond_m ?? 30, props.units.length)))
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
      <AppButton look="plain" :disabled="!changed" @click="what = {}">{{ t('whatIf.back') }}</AppButton>
    </div>
    <SlideBar
      id="w-moved"
      :label="t('whatIf.moved')"
      :shown="`${moved > 0 ? '+' : ''}${moved} ${units.length}`"
      :min="-span"
      :max="span"
      :step="units.length === 'ft' ? 10 : 5"
      :model-value="moved"
      @update:model-value="set({ moved_m: toMetres($event, units.length) })"
    />
    <div class="two">
      <SlideBar
        id="w-added"
        :label="t('whatIf.added')"
        :shown="String(what.added?.count ?? 0)"
        :min="0"
        :max="6"
        :model-value="what.added?.count ?? 0"
        @update:model-value="set({ added: { count: $event, beyond_m: what.added?.beyond_m ?? 30 } })"
      />
      <SlideBar
        id="w-beyond"
        :label="t('whatIf.beyond')"
        :shown="`${beyond} ${units.length}`"
        :min="5"
        :max="span"
        :step="5"
        :model-value="beyond"
        :disabled="!what.added?.count"
        @update:model-value="
          set({ added: { count: what.added?.count ?? 1, beyond_m: toMetres($event, units.length) } })
        "
      />
    </div>
    <SlideBar
      id="w-hot"
      :label="t('whatIf.hottest')"
      :shown="`${Math.round(Number(temperatureShown(hottest, units)))} °${units.temperature}`"
      :min="units.temperature === 'F' ? 32 : 0"
      :max="units.temperature === 'F' ? 140 : 60"
      :model-value="Number(temperatureShown(hottest, units))"
      @update:model-value="set({ hottest_C: temperatureMeant($event, units) })"
    />
    <div class="two">
      <PickOne
        id="w-together"
        :label="t('whatIf.together')"
        :model-value="what.together ?? site.settings.sizing.together"
        :options="optionsOf([1, 2, 3, 4], String)"
        @update:model-value="set({ together: $event })"
      />
      <PickOne
        v-if="!path"
        id="w-hz"
        :model-value="what.mains_Hz ?? site.settings.mains_Hz"
        :label="t('whatIf.hz')"
        :options="[
          { value: 50, label: '50 Hz' },
          { value: 60, label: '60 Hz' },
        ]"
        @update:model-value="set({ mains_Hz: $event })"
      />
      <PickOne
        id="w-coil"
        :model-value="what.coil?.name ?? ''"
        :label="t('whatIf.coil')"
        :options="[
          { value: '', label: t('whatIf.asIs') },
          ...Object.entries(COILS).map(([name, c]) => ({
            value: name,
            label: `${t(`whatIf.coils.${name}`)}, ${c.inrush_A} A`,
          })),
        ]"
        @update:model-value="set({ coil: COILS[$event] })"
      />
      <PickOne
        v-if="!path"
        id="w-va"
        :model-value="what.rating_VA ?? ''"
        :label="t('whatIf.transformer')"
        :options="[
          { value: '', label: t('whatIf.asIs') },
          ...RATINGS_VA.map((va) => ({ value: va, label: `${va} VA` })),
        ]"
        @update:model-value="set({ rating_VA: $event === '' ? undefined : $event })"
      />
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
.small {
  font-size: 13px;
}
@media (max-width: 759px) {
  .small {
    font-size: 15px;
  }
}
</style>
