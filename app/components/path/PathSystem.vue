<script setup lang="ts">
import { setField, type PathAt, type System } from '../../../core/site'
import { refusal } from '../../../core/refusal'
import { usePathPage } from '../../composables/usePath'
import { valueOf } from '../../lib/fields'
import { figureIn } from '../../lib/figures'

/** The profile of a system, as its maker’s sheet has it: an empty figure is one to ask the sheet for. */
const props = defineProps<{ path: PathAt }>()
const { t, keep, sentences, fixed } = usePathPage()
const FIGURES = [
  ['path_V', 1, 60],
  ['source_ohm', 0, 100],
  ['most_A', 0.01, 20],
  ['minimum_V', 1, 60],
  ['idle_A', 0, 10],
  ['active_A', 0, 10],
  ['outputs', 1, 16],
  ['coilsPerOutput', 1, 8],
  ['coilLead_m', 1, 5000],
  ['heavyCoil_A', 0.01, 5],
] as const
const CHOICES = {
  idle: ['live', 'dead'],
  cable: ['twisted', 'direct_burial'],
  jumper: ['on_path', 'none'],
} as const
const ADDRESSES = [
  ['from', 0, 9999],
  ['to', 0, 9999],
] as const
const SURGE = [
  ['near_m', 0.1, 5000],
  ['branch_m', 0.1, 5000],
  ['spacing_m', 0.1, 5000],
  ['lightning_m', 0.1, 5000],
  ['earthPass_ohm', 0.1, 1000],
  ['earthGood_ohm', 0.1, 1000],
] as const
const WHOLE = new Set<string>(['outputs', 'coilsPerOutput', 'from', 'to'])
const id = computed(() => props.path.systemId)
const system = computed(() => props.path.system)
const label = (field: string) => t(`field.${field}`)

function figure(field: string, text: string, low: number, high: number): number | null | undefined {
  if (text.trim() === '' && field !== 'source_ohm') return null
  const value = figureIn(text, low, high)
  if (value !== null && (!WHOLE.has(field) || Number.isInteger(value))) return value
  void keep({ ok: false, refusals: [refusal('not_within', [label(field)], { low, high })] })
  return undefined
}
function set<F extends keyof System>(field: F, value: System[F]): void {
  void keep({ ok: true, value: [setField('systems', id.value!, field as never, value as never)] })
}
function setFigure(field: (typeof FIGURES)[number][0], text: string, low: number, high: number): void {
  const value = figure(field, text, low, high)
  if (value !== undefined) set(field, value as never)
}
function setWithin(group: 'addresses' | 'surge', field: string, text: string, low: number, high: number): void {
  const value = figure(field, text, low, high)
  if (value !== undefined && value !== null) set(group, { ...system.value![group], [field]: value } as never)
}
/** Numbers parted by commas or spaces. */
function setReserved(text: string): void {
  const numbers = text.split(/[\s,;]+/).filter((n) => n !== '')
  const read = numbers.map((n) => figureIn(n, 0, 9999))
  if (read.some((n) => n === null || !Number.isInteger(n)))
    void keep({ ok: false, refusals: [refusal('not_within', [label('reserved')], { low: 0, high: 9999 })] })
  else set('addresses', { ...system.value!.addresses, reserved: read as number[] })
}
</script>

<template>
  <section v-if="system" class="sheet stack">
    <h2>{{ t('twoWire.profile') }}</h2>
    <p class="quiet">{{ t('twoWire.profileHow') }}</p>
    <ul v-if="sentences.length > 0" class="fault" role="alert">
      <li v-for="s in sentences" :key="s">{{ s }}</li>
    </ul>
    <div class="fields">
      <div class="field wide">
        <label for="system-name">{{ label('name') }}</label>
        <TextField
          id="system-name"
          :model-value="system.name"
          :readonly="fixed"
          @change="set('name', valueOf($event).trim())"
        />
      </div>
      <div v-for="[field, low, high] in FIGURES" :key="field" class="field">
        <label :for="`system-${field}`">{{ label(field) }}</label>
        <TextField
          :id="`system-${field}`"
          class="figure"
          inputmode="decimal"
          :model-value="String(system[field] ?? '')"
          :placeholder="t('twoWire.askSheet')"
          :readonly="fixed"
          @change="setFigure(field, valueOf($event), low, high)"
        />
      </div>
      <PickOne
        :model-value="system.idle"
        :label="label('idle')"
        :disabled="fixed"
        :options="[
          { value: null, label: t('twoWire.askSheet') },
          ...CHOICES.idle.map((value) => ({ value, label: t(`twoWire.idles.${value}`) })),
        ]"
        @update:model-value="set('idle', $event)"
      />
      <PickOne
        :model-value="system.cable"
        :label="label('cable')"
        :disabled="fixed"
        :options="[
          { value: null, label: t('twoWire.askSheet') },
          ...CHOICES.cable.map((value) => ({ value, label: t(`twoWire.cables.${value}`) })),
        ]"
        @update:model-value="set('cable', $event)"
      />
      <PickOne
        :model-value="system.jumper"
        :label="label('jumper')"
        :disabled="fixed"
        :options="[
          { value: null, label: t('twoWire.askSheet') },
          ...CHOICES.jumper.map((value) => ({ value, label: t(`twoWire.jumperRules.${value}`) })),
        ]"
        @update:model-value="set('jumper', $event)"
      />
      <TickBox
        :model-value="system.polarised === true"
        :disabled="fixed"
        @update:model-value="set('polarised', $event)"
      >
        {{ label('polarised') }}
      </TickBox>
      <TickBox
        :model-value="system.acCoilsOnly === true"
        :disabled="fixed"
        @update:model-value="set('acCoilsOnly', $event)"
      >
        {{ label('acCoilsOnly') }}
      </TickBox>
    </div>
    <h3>{{ label('addresses') }}</h3>
    <div class="fields">
      <div v-for="[field, low, high] in ADDRESSES" :key="field" class="field">
        <label :for="`system-${field}`">{{ t(`twoWire.range.${field}`) }}</label>
        <TextField
          :id="`system-${field}`"
          class="figure"
          inputmode="numeric"
          :model-value="String(system.addresses[field])"
          :readonly="fixed"
          @change="setWithin('addresses', field, valueOf($event), low, high)"
        />
      </div>
      <div class="field">
        <label for="system-reserved">{{ label('reserved') }}</label>
        <TextField
          id="system-reserved"
          :model-value="system.addresses.reserved.join(', ')"
          :readonly="fixed"
          @change="setReserved(valueOf($event))"
        />
      </div>
      <PickOne
        :model-value="system.addresses.duals"
        :label="label('duals')"
        :disabled="fixed"
        :options="(['next', 'own'] as const).map((value) => ({ value, label: t(`twoWire.duals.${value}`) }))"
        @update:model-value="set('addresses', { ...system.addresses, duals: $event })"
      />
      <TickBox
        :model-value="system.addresses.pumpsFirst"
        :disabled="fixed"
        @update:model-value="set('addresses', { ...system.addresses, pumpsFirst: $event })"
      >
        {{ label('pumpsFirst') }}
      </TickBox>
    </div>
    <h3>{{ label('surge') }}</h3>
    <div class="fields">
      <div v-for="[field, low, high] in SURGE" :key="field" class="field">
        <label :for="`system-${field}`">{{ label(field) }}, {{ field.endsWith('_m') ? 'm' : 'Ω' }}</label>
        <TextField
          :id="`system-${field}`"
          class="figure"
          inputmode="decimal"
          :model-value="String(system.surge[field])"
          :readonly="fixed"
          @change="setWithin('surge', field, valueOf($event), low, high)"
        />
      </div>
    </div>
  </section>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(210px, 1fr));
  gap: 12px;
  align-items: end;
}
.wide {
  grid-column: 1 / -1;
}
</style>
