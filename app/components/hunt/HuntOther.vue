<script setup lang="ts">
import { jointKeys } from '../../lib/hunt-joints'
import {
  fieldTest,
  testKindOf,
  testKinds,
  type FieldTest,
  type FieldTestKind,
  type Meter,
  type ReadingValue,
} from '../../../core/record'
import {
  getOrThrow,
  terminalEnd,
  terminalsInOrder,
  type ControllerId,
  type DeviceId,
  type Site,
  type SpliceId,
  type TerminalId,
} from '../../../core/site'
import type { Speaker } from '../../../words'
import { sayTest } from '../../../words/hunt'
import { sayPart } from '../../../words/part'
import { useHuntWords } from '../../composables/useHuntWords'

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
/** The kinds to choose from: to earth is a choice of its own. */
type Kind = FieldTestKind | 'ohms_earth'
const KINDS = testKinds.flatMap((kind): Kind[] => (kind === 'ohms' ? ['ohms', 'ohms_earth'] : [kind]))
const terminals = computed(() =>
  terminalsInOrder(props.site, props.controller).map((id) => ({
    id,
    ...getOrThrow(getOrThrow(props.site.controllers, props.controller).terminals, id),
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
const on = computed(() => testKindOf(form.kind === 'ohms_earth' ? 'ohms' : form.kind).on)
const asksTo = computed(() => form.kind !== 'ohms_earth' && (on.value === 'points' || on.value === 'moved'))
/** What the fields say, as a test; null where they do not make one. */
const test = computed((): FieldTest | null => {
  if (asksTo.value && form.from === form.to) return null
  const read = fieldTest.safeParse(sample(form.kind))
  return read.success ? read.data : null
})
const answered = (value: ReadingValue) => {
  if (test.value) emit('value', test.value, value)
}
/** What a test is called without its place. */
const title = (kind: Kind) => sayTest(sample(kind), props.site, props.speaker)
function sample(kind: Kind): FieldTest {
  const [at, to] = [form.from, form.to].map((id) => terminalEnd(props.controller, id))
  const earth = { kind: 'earth', place: getOrThrow(props.site.controllers, props.controller).place }
  if (kind === 'ohms_earth') return { kind: 'ohms', from: at, to: earth } as FieldTest
  const fields = {
    points: { from: at, to },
    controller: { controller: props.controller },
    terminal: { at },
    moved: { at, onto: to },
    coil: { device: form.device },
    beside: { device: form.device, live: at },
    joint: { splice: form.splice },
  }[testKindOf(kind).on]
  return { kind, ...fields } as FieldTest
}
</script>

<template>
  <details class="sheet folds">
    <summary>
      <h2>{{ t('diagnose.other') }}</h2>
    </summary>
    <div class="row pick">
      <PickOne
        id="hunt-kind"
        v-model="form.kind"
        class="wide"
        :label="t('diagnose.otherHow')"
        :options="KINDS.map((k) => ({ value: k, label: title(k) }))"
      />
      <PickOne
        v-if="on === 'points' || on === 'terminal' || on === 'moved' || on === 'beside'"
        id="hunt-from"
        v-model="form.from"
        :label="t('checks.terminal')"
        :options="terminals.map((x) => ({ value: x.id, label: x.tag }))"
      />
      <PickOne
        v-if="asksTo"
        id="hunt-to"
        v-model="form.to"
        :label="t('checks.other')"
        :options="terminals.map((x) => ({ value: x.id, label: x.tag }))"
      />
      <PickOne
        v-if="on === 'coil' || on === 'beside'"
        id="hunt-device"
        v-model="form.device"
        :label="t('diagnose.part')"
        :options="zones.map((z) => ({ value: z.device, label: z.name }))"
      />
      <PickOne
        v-if="form.kind === 'look' || form.kind === 'remake'"
        id="hunt-joint"
        v-model="form.splice"
        class="wide"
        :label="t('diagnose.part')"
        :options="joints.map((s) => ({ value: s, label: sayPart({ kind: 'joint', splice: s }, site, speaker) }))"
      />
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
