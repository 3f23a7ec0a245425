<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { entries, setSetting, type Command, type Settings, type Site } from '../../../core/site'
import { figureIn, temperatureMeant, temperatureShown } from '../../lib/figures'
import { useProperty } from '../../stores/property'

/** The school in force and the worst that wire must bear: settings of the property, each with its reason. */
const props = defineProps<{ site: Site }>()
const property = useProperty()
const { t } = useI18n()
const sizing = computed(() => props.site.settings.sizing)
const units = computed(() => props.site.settings.units)
const store = (more: Partial<Settings['sizing']>) =>
  property.change([{ do: 'setSetting', field: 'sizing', value: { ...sizing.value, ...more } }])
const valueOf = (event: Event) => (event.target as HTMLInputElement).value
const controllers = computed(() => entries(props.site.controllers))

interface Field {
  key: string
  label: string
  why: string
  shown: string
  low: number
  high: number
  save: (value: number) => Command | null
}
const fields = computed((): Field[] => {
  const { mainsLow_ratio, hottest_C, allowedDrop, school, together } = sizing.value
  const F = units.value.temperature === 'F'
  const drop = allowedDrop.unit === 'V'
  return [
    ...(school === 'allowed_drop'
      ? [
          {
            key: 'drop',
            label: t(drop ? 'sizes.dropV' : 'sizes.dropPart'),
            why: t('sizes.why.drop'),
            shown: String(drop ? allowedDrop.value : Math.round(allowedDrop.value * 1000) / 10),
            low: 0.1,
            high: drop ? 20 : 50,
            save: (v: number) =>
              setSetting('sizing', { ...sizing.value, allowedDrop: { ...allowedDrop, value: drop ? v : v / 100 } }),
          },
        ]
      : []),
    {
      key: 'open',
      label: t('sizes.openVolts'),
      why: t('sizes.why.open'),
      shown: String(props.site.settings.V_open_V),
      low: 24.1,
      high: 60,
      save: (v) => setSetting('V_open_V', v),
    },
    {
      key: 'mains',
      label: t('sizes.mainsLow'),
      why: t('sizes.why.mains'),
      shown: String(Math.round(mainsLow_ratio * 1000) / 10),
      low: 0,
      high: 30,
      save: (v) => setSetting('sizing', { ...sizing.value, mainsLow_ratio: v / 100 }),
    },
    {
      key: 'hottest',
      label: `${t('whatIf.hottest')}, °${units.value.temperature}`,
      why: t('sizes.why.hottest'),
      shown: temperatureShown(hottest_C, units.value),
      low: -40,
      high: F ? 194 : 90,
      save: (v) => setSetting('sizing', { ...sizing.value, hottest_C: temperatureMeant(v, units.value) }),
    },
    {
      key: 'together',
      label: t('whatIf.together'),
      why: t('sizes.why.together'),
      shown: String(together),
      low: 1,
      high: 4,
      save: (v) => (Number.isInteger(v) ? setSetting('sizing', { ...sizing.value, together: v }) : null),
    },
    ...controllers.value.map(([id, c]): Field => ({
      key: `va-${id}`,
      label: t('sizes.rating', { name: c.name }),
      why: t('sizes.why.rating'),
      shown: c.transformer ? String(c.transformer.rating_VA) : '',
      low: 5,
      high: 2000,
      save: (v) => ({ do: 'set', in: 'controllers', id, field: 'transformer', value: { rating_VA: v } }),
    })),
  ]
})
const bad = ref<Record<string, string>>({})
async function keep(field: Field, text: string): Promise<void> {
  const value = figureIn(text, field.low, field.high)
  const command = value === null ? null : field.save(value)
  const { [field.key]: _was, ...rest } = bad.value
  bad.value =
    command === null
      ? { ...rest, [field.key]: t('test.bad.number', { field: field.label, low: field.low, high: field.high }) }
      : rest
  if (command !== null && text.trim() !== field.shown) await property.change([command])
}
const masterFirst = (id: string, on: boolean) =>
  property.change([{ do: 'set', in: 'controllers', id, field: 'masterFirst', value: on }])
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('sizes.bear') }}</h2>
    <div class="field">
      <label for="school">{{ t('sizes.school') }}</label>
      <select
        id="school"
        class="input"
        :value="sizing.school"
        @change="store({ school: valueOf($event) as Settings['sizing']['school'] })"
      >
        <option v-for="s in ['coil_minimum', 'allowed_drop', 'reach_table']" :key="s" :value="s">
          {{ t(`sizes.schools.${s}`) }}
        </option>
      </select>
      <p class="how">{{ t(`sizes.schoolHow.${sizing.school}`) }}</p>
    </div>
    <div v-if="sizing.school === 'allowed_drop'" class="field">
      <label for="drop-unit">{{ t('sizes.dropUnit') }}</label>
      <select
        id="drop-unit"
        class="input"
        :value="sizing.allowedDrop.unit"
        @change="
          store({ allowedDrop: valueOf($event) === 'V' ? { unit: 'V', value: 4 } : { unit: 'ratio', value: 0.15 } })
        "
      >
        <option value="V">V</option>
        <option value="ratio">%</option>
      </select>
    </div>
    <div class="two">
      <div v-for="f in fields" :key="f.key" class="field">
        <label :for="`s-${f.key}`">{{ f.label }}</label>
        <TextField
          :id="`s-${f.key}`"
          :model-value="f.shown"
          inputmode="decimal"
          :placeholder="t('plan.unknown')"
          :aria-invalid="!!bad[f.key]"
          :aria-describedby="`s-${f.key}-how`"
          @change="keep(f, valueOf($event))"
        />
        <p :id="`s-${f.key}-how`" class="how">{{ f.why }}</p>
        <p v-if="bad[f.key]" class="bad" role="alert">{{ bad[f.key] }}</p>
      </div>
    </div>
    <label v-for="[id, c] in controllers" :key="id" class="row tick">
      <input
        type="checkbox"
        :checked="c.masterFirst"
        @change="masterFirst(id, ($event.target as HTMLInputElement).checked)"
      />
      {{ t('sizes.masterFirst', { name: c.name }) }}
    </label>
  </section>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
.tick {
  min-height: 32px;
  gap: 8px;
}
@media (max-width: 759px) {
  .two {
    grid-template-columns: 1fr;
  }
  .tick {
    min-height: 48px;
  }
}
</style>
