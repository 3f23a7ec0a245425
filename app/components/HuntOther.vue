<script setup lang="ts">
import { jointKeys } from '../lib/hunt-joints'
import type { FieldTest, Meter, ReadingValue } from '../../core/record'
import {
  must,
  terminalEnd,
  terminalsInOrder,
  type ControllerId,
  type DeviceId,
  type End,
  type Site,
  type SpliceId,
  type TerminalId,
} from '../../core/site'
import type { Speaker } from '../../words'
import { sayPart, sayTest } from '../../words/hunt'
import { useHuntWords } from '../composables/useHuntWords'

/** Any other test that was made: its kind, what it was made on, and its answer. */
const props = defineProps<{
  site: Site
  controller: ControllerId
  meter: Meter
  speaker: Speaker
  zones: readonly { device: DeviceId; name: string }[]
}>()
const emit = defineEmits<{ value: [test: FieldTest, value: ReadingValue] }>()
const { t } = useHuntWords(() => props.site.settings.units)
const AT_TERMINAL = [
  'ohms',
  'ohms_earth',
  'volts',
  'click',
  'water',
  'swap_test',
  'tone',
  'tester_coil',
  'tester_power',
] as const
const AT_COIL = [
  'coil_ohms',
  'coil_volts',
  'loop_lead',
  'loop_common',
  'lead_earth',
  'lead_through',
  'common_earth',
  'energise',
  'by_hand',
] as const
type Kind = (typeof AT_TERMINAL)[number] | (typeof AT_COIL)[number] | 'supply' | 'look' | 'remake'
const KINDS: readonly Kind[] = ['supply', ...AT_TERMINAL, ...AT_COIL, 'look', 'remake']
const terminals = computed(() =>
  terminalsInOrder(props.site, props.controller).map((id) => ({
    id,
    ...must(must(props.site.controllers, props.controller).terminals, id),
  })),
)
const joints = computed(() => jointKeys(props.site))
const form = reactive({
  kind: 'ohms' as Kind,
  from: '' as TerminalId,
  to: '' as TerminalId,
  device: '' as DeviceId,
  splice: '' as SpliceId,
})
watch(
  terminals,
  (list) => {
    form.from = list.find((x) => x.role === 'station')?.id ?? list[0]!.id
    form.to = list.find((x) => x.role === 'common')?.id ?? list[0]!.id
    form.device = props.zones[0]?.device ?? form.device
    form.splice = joints.value[0] ?? form.splice
  },
  { immediate: true },
)
const isAt = (kinds: readonly string[]) => kinds.includes(form.kind)
const test = computed((): FieldTest | null => {
  const at = (id: TerminalId) => terminalEnd(props.controller, id) as Extract<End, { kind: 'terminal' }>
  const { kind } = form
  switch (kind) {
    case 'supply':
      return { kind, controller: props.controller }
    case 'ohms':
      return form.from === form.to ? null : { kind, from: at(form.from), to: at(form.to) }
    case 'ohms_earth':
      return {
        kind: 'ohms',
        from: at(form.from),
        to: { kind: 'earth', place: must(props.site.controllers, props.controller).place },
      }
    case 'swap_test':
      return form.from === form.to ? null : { kind, at: at(form.from), onto: at(form.to) }
    case 'look':
    case 'remake':
      return form.splice ? { kind, splice: form.splice } : null
    case 'volts':
    case 'click':
    case 'water':
    case 'tone':
    case 'tester_coil':
    case 'tester_power':
      return { kind, at: at(form.from) }
    default:
      return form.device ? { kind, device: form.device } : null
  }
})
const answered = (value: ReadingValue) => {
  if (test.value) emit('value', test.value, value)
}
/** What a test is called without its place. */
const title = (kind: Kind) => sayTest(sample(kind), props.site, props.speaker)
function sample(kind: Kind): FieldTest {
  const end = terminalEnd(props.controller, form.from) as Extract<End, { kind: 'terminal' }>
  const to = terminalEnd(props.controller, form.to) as Extract<End, { kind: 'terminal' }>
  if (kind === 'supply') return { kind, controller: props.controller }
  if (kind === 'ohms') return { kind, from: end, to }
  if (kind === 'ohms_earth')
    return {
      kind: 'ohms',
      from: end,
      to: { kind: 'earth', place: must(props.site.controllers, props.controller).place },
    }
  if (kind === 'swap_test') return { kind, at: end, onto: to }
  if (kind === 'look' || kind === 'remake') return { kind, splice: form.splice }
  return (AT_COIL as readonly string[]).includes(kind)
    ? ({ kind, device: form.device } as FieldTest)
    : ({ kind, at: end } as FieldTest)
}
</script>

<template>
  <details class="sheet folds">
    <summary>
      <h2>{{ t('diagnose.other') }}</h2>
    </summary>
    <div class="row pick">
      <div class="field wide">
        <label for="hunt-kind">{{ t('diagnose.otherHow') }}</label>
        <select id="hunt-kind" v-model="form.kind" class="input">
          <option v-for="k in KINDS" :key="k" :value="k">{{ title(k) }}</option>
        </select>
      </div>
      <div v-if="isAt(AT_TERMINAL)" class="field">
        <label for="hunt-from">{{ t('checks.terminal') }}</label>
        <select id="hunt-from" v-model="form.from" class="input">
          <option v-for="x in terminals" :key="x.id" :value="x.id">{{ x.tag }}</option>
        </select>
      </div>
      <div v-if="form.kind === 'ohms' || form.kind === 'swap_test'" class="field">
        <label for="hunt-to">{{ t('checks.other') }}</label>
        <select id="hunt-to" v-model="form.to" class="input">
          <option v-for="x in terminals" :key="x.id" :value="x.id">{{ x.tag }}</option>
        </select>
      </div>
      <div v-if="isAt(AT_COIL)" class="field">
        <label for="hunt-device">{{ t('diagnose.part') }}</label>
        <select id="hunt-device" v-model="form.device" class="input">
          <option v-for="z in zones" :key="z.device" :value="z.device">{{ z.name }}</option>
        </select>
      </div>
      <div v-if="form.kind === 'look' || form.kind === 'remake'" class="field wide">
        <label for="hunt-joint">{{ t('diagnose.part') }}</label>
        <select id="hunt-joint" v-model="form.splice" class="input">
          <option v-for="s in joints" :key="s" :value="s">
            {{ sayPart({ kind: 'joint', splice: s }, site, speaker) }}
          </option>
        </select>
      </div>
    </div>
    <HuntAnswer
      v-if="test"
      :test="test"
      :site="site"
      :meter="meter"
      :speaker="speaker"
      :zones="zones"
      @value="answered"
    />
  </details>
</template>

<style scoped>
.pick {
  align-items: end;
  margin: 8px 0;
}
.pick .field {
  flex: 1 1 130px;
}
.pick .wide {
  flex-basis: 240px;
}
</style>
