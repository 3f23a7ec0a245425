<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { readText, type Scene } from '../../../core/expect'
import {
  answerOf,
  offFor,
  type CabinetTest,
  type Job,
  type Meter,
  type ReadingValue,
  type TestKind,
} from '../../../core/record'
import { getOrThrow, terminalEnd, terminalsInOrder, type End, type PlaceId, type TerminalId } from '../../../core/site'
import type { Speaker } from '../../../words'
import { useJobFacts } from '../../composables/useJobFacts'
import { useCabinetChecks } from '../../composables/useCabinetChecks'
import { figureIn } from '../../lib/figures'
import { useProperty } from '../../stores/property'

/** Further readings at the cabinet: what a sweep of ohms to common cannot tell. */
const props = defineProps<{
  jobId: string
  job: Job
  scene: Scene
  meter: Meter
  speaker: Speaker
  open: boolean
  folded?: boolean
}>()
const emit = defineEmits<{ unfold: [open: boolean] }>()
const { t } = useI18n()
const property = useProperty()
const { rows, supply_V } = useCabinetChecks(
  () => props.jobId,
  () => props.job,
  () => props.scene,
  () => props.speaker,
)

const written = useJobFacts(() => props.jobId)

type Choice = Exclude<TestKind, 'ohms'> | 'between' | 'earth'
const CHOICES: readonly Choice[] = ['between', 'earth', 'supply', 'volts', 'click', 'tester_coil', 'tester_power']
/** Its kind: between two terminals and to earth are ohms. */
const kindOfChoice = (choice: Choice): TestKind => (choice === 'between' || choice === 'earth' ? 'ohms' : choice)

const controller = computed(() => props.job.controller)
const terminals = computed(() =>
  terminalsInOrder(property.site!, controller.value).map((id) => ({
    id,
    ...getOrThrow(getOrThrow(property.site!.controllers, controller.value).terminals, id),
  })),
)
const outputs = computed(() => terminals.value.filter((x) => x.role === 'station' || x.role === 'master'))
const form = reactive({ choice: 'supply' as Choice, from: '' as TerminalId, to: '' as TerminalId, value: '' })
const bad = ref('')
watch(
  [outputs, () => form.choice],
  () => {
    bad.value = ''
    if (!outputs.value.some((x) => x.id === form.from) && outputs.value[0]) form.from = outputs.value[0].id
    if (!outputs.value.some((x) => x.id === form.to) && outputs.value[1]) form.to = outputs.value[1].id
  },
  { immediate: true },
)
/** Open where there is something to see; folded where the room is needed for the keypad, until it is asked for. */
const unfolded = ref(!props.folded && rows.value.length > 0)
function toggled(event: Event): void {
  unfolded.value = (event.target as HTMLDetailsElement).open
  emit('unfold', unfolded.value)
}
const answers = computed(() => answerOf(kindOfChoice(form.choice)).options)
const isVolts = computed(() => answerOf(kindOfChoice(form.choice)).unit === 'V')

function testNow(): CabinetTest {
  const at = (id: TerminalId) => terminalEnd(controller.value, id) as Extract<End, { kind: 'terminal' }>
  switch (form.choice) {
    case 'between':
      return { kind: 'ohms', from: at(form.from), to: at(form.to) }
    case 'earth':
      return {
        kind: 'ohms',
        from: at(form.from),
        to: { kind: 'earth', place: getOrThrow(property.site!.controllers, controller.value).place as PlaceId },
      }
    case 'supply':
      return { kind: 'supply', controller: controller.value }
    default:
      return { kind: form.choice, at: at(form.from) }
  }
}
function valueNow(): ReadingValue | null {
  if (isVolts.value) {
    const volt = figureIn(form.value, 0, 300)
    if (volt === null) bad.value = t('checks.badVolts')
    return volt === null ? null : { kind: 'volt', volt }
  }
  const read = readText(form.value, props.meter)
  if (!read.ok)
    bad.value = t(
      {
        not_a_figure: 'sweep.notFigure',
        over_range: 'sweep.overRange',
        mark_or_figure: 'sweep.mark',
        empty: 'sweep.notFigure',
      }[read.code],
    )
  return read.ok ? read.value : null
}
async function keep(value: ReadingValue | null): Promise<void> {
  bad.value = ''
  const given = value ?? valueNow()
  if (!given) return
  if (form.choice === 'between' && form.from === form.to) {
    bad.value = t('checks.sameTwice')
    return
  }
  form.value = ''
  await written.read(testNow(), given)
}
const strike = (reading: string) => written.strike(reading, t('sweep.undoReason'))
</script>

<template>
  <details class="sheet checks" :open="unfolded" @toggle="toggled">
    <summary>
      <h2>{{ t('checks.title') }}</h2>
      <span class="quiet">{{ rows.length > 0 ? t('checks.count', rows.length) : t('checks.how') }}</span>
    </summary>
    <FigureList v-if="rows.length > 0" :rows="rows" :row-key="(row) => row.id">
      <template #words="{ row }">
        <strong>{{ row.what }}</strong>
        <br />
        <span class="quiet">{{ row.says }}</span>
      </template>
      <template #figure="{ row }">
        {{ row.value }}
        <StateMark :state="row.state" />
        <AppButton
          v-if="open"
          look="plain"
          class="small"
          :aria-label="t('checks.strike', { what: row.what })"
          @click="strike(row.id)"
        >
          ×
        </AppButton>
      </template>
    </FigureList>
    <form v-if="open" class="form" @submit.prevent="keep(null)">
      <PickOne
        id="check-kind"
        v-model="form.choice"
        :label="t('checks.kind')"
        :options="CHOICES.map((c) => ({ value: c, label: t(`checks.choice.${c}`) }))"
      />
      <PickOne
        v-if="form.choice !== 'supply'"
        id="check-from"
        v-model="form.from"
        :label="t('checks.terminal')"
        :options="(form.choice === 'earth' ? terminals : outputs).map((x) => ({ value: x.id, label: x.tag }))"
      />
      <PickOne
        v-if="form.choice === 'between'"
        id="check-to"
        v-model="form.to"
        :label="t('checks.other')"
        :options="outputs.map((x) => ({ value: x.id, label: x.tag }))"
      />
      <div v-if="answers.length === 0" class="field">
        <label for="check-value">{{ t(isVolts ? 'checks.volts' : 'checks.ohms') }}</label>
        <TextField
          id="check-value"
          v-model="form.value"
          inputmode="decimal"
          autocomplete="off"
          :aria-invalid="bad !== ''"
        />
      </div>
      <AppButton v-if="answers.length === 0" look="primary" type="submit">{{ t('checks.keep') }}</AppButton>
      <div v-else class="row answers" role="group" :aria-label="t('checks.answer')">
        <AppButton v-for="a in answers" :key="a.says" @click="keep(a.value)">
          {{ t(`check.answer.${a.says}`) }}
        </AppButton>
      </div>
      <p v-if="bad" class="bad fault" role="alert">{{ bad }}</p>
      <p class="caution wide">
        {{
          t(
            offFor(kindOfChoice(form.choice)) === 'none'
              ? 'checks.powerOn'
              : form.choice === 'earth'
                ? 'checks.earthHow'
                : 'checks.leadsOff',
          )
        }}
      </p>
      <p v-if="form.choice === 'volts' && supply_V === null" class="quiet wide">
        {{ t('cabinet.volts_without_supply') }}
      </p>
    </form>
  </details>
</template>

<style scoped>
.checks summary {
  cursor: pointer;
  display: flex;
  align-items: baseline;
  gap: 12px;
  flex-wrap: wrap;
  min-height: 32px;
}
.checks summary h2 {
  font-size: 16px;
}
.checks .table {
  margin: 8px 0;
}
.form {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: end;
  margin-top: 12px;
}
.form .field {
  flex: 1 1 120px;
}
.wide {
  flex-basis: 100%;
}
.bad {
  flex-basis: 100%;
  font-weight: 600;
}
.answers {
  gap: 8px;
}
.small {
  min-height: 28px;
  padding: 0 8px;
}
@media (max-width: 759px) {
  .small {
    min-height: 44px;
    min-width: 44px;
  }
}
</style>
