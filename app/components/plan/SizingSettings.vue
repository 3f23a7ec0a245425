<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import {
  entries,
  setField,
  setSetting,
  usualSettings,
  type Command,
  type Settings,
  type Site,
} from '../../../core/site'
import { temperatureMeant, temperatureShown } from '../../lib/figures'
import { useProperty } from '../../stores/property'
import { optionsOf } from '../../lib/options'

/** The school in force and the worst that wire must bear: settings of the property, each with its reason. */
const props = defineProps<{ site: Site }>()
const property = useProperty()
const { t } = useI18n()
const sizing = computed(() => props.site.settings.sizing)
const units = computed(() => props.site.settings.units)
const store = (more: Partial<Settings['sizing']>) =>
  property.change([{ do: 'setSetting', field: 'sizing', value: { ...sizing.value, ...more } }])
const controllers = computed(() => entries(props.site.controllers))

interface Field {
  key: string
  label: string
  why: string
  shown: string
  usual?: string
  low: number
  high: number
  whole?: boolean
  save: (value: number) => Command
}
const usual = usualSettings()
const percent = (ratio: number) => String(Math.round(ratio * 1000) / 10)
const fields = computed((): Field[] => {
  const { mainsLow_ratio, hottest_C, allowedDrop, school, together } = sizing.value
  const F = units.value.temperature === 'F'
  const drop = allowedDrop.unit === 'V'
  const set = (more: Partial<Settings['sizing']>) => setSetting('sizing', { ...sizing.value, ...more })
  return [
    ...(school === 'allowed_drop'
      ? [
          {
            key: 'drop',
            label: t(drop ? 'sizes.dropV' : 'sizes.dropPart'),
            why: t('sizes.why.drop'),
            shown: drop ? String(allowedDrop.value) : percent(allowedDrop.value),
            low: 0.1,
            high: drop ? 20 : 50,
            save: (v: number) => set({ allowedDrop: { ...allowedDrop, value: drop ? v : v / 100 } }),
          },
        ]
      : []),
    {
      key: 'open',
      label: t('sizes.openVolts'),
      why: t('sizes.why.open'),
      shown: String(props.site.settings.V_open_V),
      usual: String(usual.V_open_V),
      low: 24.1,
      high: 60,
      save: (v) => setSetting('V_open_V', v),
    },
    {
      key: 'mains',
      label: t('sizes.mainsLow'),
      why: t('sizes.why.mains'),
      shown: percent(mainsLow_ratio),
      usual: percent(usual.sizing.mainsLow_ratio),
      low: 0,
      high: 30,
      save: (v) => set({ mainsLow_ratio: v / 100 }),
    },
    {
      key: 'hottest',
      label: `${t('whatIf.hottest')}, °${units.value.temperature}`,
      why: t('sizes.why.hottest'),
      shown: temperatureShown(hottest_C, units.value),
      usual: temperatureShown(usual.sizing.hottest_C, units.value),
      low: -40,
      high: F ? 194 : 90,
      save: (v) => set({ hottest_C: temperatureMeant(v, units.value) }),
    },
    {
      key: 'together',
      label: t('whatIf.together'),
      why: t('sizes.why.together'),
      shown: String(together),
      usual: String(usual.sizing.together),
      low: 1,
      high: 4,
      whole: true,
      save: (v) => set({ together: v }),
    },
    ...controllers.value.map(([id, c]): Field => ({
      key: `va-${id}`,
      label: t('sizes.rating', { name: c.name }),
      why: t('sizes.why.rating'),
      shown: String(c.transformer?.rating_VA ?? ''),
      low: 5,
      high: 2000,
      save: (v) => setField('controllers', id, 'transformer', { open_V: c.transformer?.open_V ?? null, rating_VA: v }),
    })),
  ]
})
const masterFirst = (id: string, on: boolean) =>
  property.change([{ do: 'set', in: 'controllers', id, field: 'masterFirst', value: on }])
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('sizes.bear') }}</h2>
    <PickOne
      id="school"
      :label="t('sizes.school')"
      :model-value="sizing.school"
      :options="optionsOf(['coil_minimum', 'allowed_drop', 'reach_table'], (s) => t(`sizes.schools.${s}`))"
      @update:model-value="store({ school: $event })"
    >
      <p class="how">{{ t(`sizes.schoolHow.${sizing.school}`) }}</p>
    </PickOne>
    <PickOne
      v-if="sizing.school === 'allowed_drop'"
      id="drop-unit"
      :model-value="sizing.allowedDrop.unit"
      :label="t('sizes.dropUnit')"
      :options="[
        { value: 'V', label: 'V' },
        { value: 'ratio', label: '%' },
      ]"
      @update:model-value="
        store({ allowedDrop: $event === 'V' ? { unit: 'V', value: 4 } : { unit: 'ratio', value: 0.15 } })
      "
    />
    <div class="two">
      <FigureField
        v-for="f in fields"
        :id="`s-${f.key}`"
        :key="f.key"
        :label="f.label"
        :why="f.why"
        :shown="f.shown"
        :ours="f.usual"
        :low="f.low"
        :high="f.high"
        :whole="f.whole"
        @store="property.change([f.save($event)])"
      />
    </div>
    <TickBox
      v-for="[id, c] in controllers"
      :key="id"
      :model-value="c.masterFirst"
      @update:model-value="masterFirst(id, $event)"
    >
      {{ t('sizes.masterFirst', { name: c.name }) }}
    </TickBox>
  </section>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
@media (max-width: 759px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
