<script setup lang="ts">
import { parseOhms } from '../../../core/quantity'
import { testOf, type RunStep } from '../../../core/procedure'
import type { ReadingValue, StepAnswer } from '../../../core/record'
import type { DeviceId } from '../../../core/site'
import { sayOption } from '../../../words/procedure'
import { figureIn, temperatureMeant } from '../../lib/figures'
import type { useRun } from '../../composables/useRun'

/** What answers a step, at the thumb: a tick, a choice, a figure, a reading, words, a day; or why it is left out. */
const props = defineProps<{
  step: RunStep
  work: ReturnType<typeof useRun>
  zones: readonly { device: DeviceId; name: string }[]
  /** What comes after an answer; the controls are gone by then, so it is no event of theirs. */
  then: () => unknown
}>()
const { t, speaker, property } = props.work
const does = computed(() => props.step.step.does)
const cautions = computed(() => props.step.step.cautions)
const ticked = ref(new Set<string>())
const heeded = computed(() => cautions.value.every((c) => ticked.value.has(c)))
const [text, bad, leaving, reason] = [ref(''), ref(''), ref(false), ref('')]
const busy = ref(false)
const units = computed(() => property.site!.settings.units)
const test = computed(() => testOf(property.site!, props.step))
const EXAMPLES = { C: '12', V: '26.4', A: '0.25', ohm: '12', count: '6', bar: '4.1' } as const
const HIGHEST = 1e9

async function give(answer: StepAnswer): Promise<void> {
  if (!heeded.value && answer.kind !== 'refused') {
    bad.value = t('run.heed')
    return
  }
  // A second tap on the way is no second answer.
  if (busy.value) return
  busy.value = true
  bad.value = ''
  const kept = await props.work.answer(props.step, answer, heeded.value && cautions.value.length > 0)
  busy.value = false
  if (kept) props.then()
}
async function measure(value: ReadingValue): Promise<void> {
  if (!heeded.value) {
    bad.value = t('run.heed')
    return
  }
  if (busy.value) return
  busy.value = true
  bad.value = ''
  await props.work.measure(props.step, value, cautions.value.length > 0)
  busy.value = false
}
function keepFigure(): Promise<void> | void {
  if (does.value.kind !== 'figure') return
  const { quantity } = does.value
  // Ohms to earth come in megohms: 5M, 300k.
  const value = quantity === 'ohm' ? parseOhms(text.value) : figureIn(text.value, -HIGHEST, HIGHEST)
  if (value === null) bad.value = t('run.badFigure', { example: EXAMPLES[quantity] })
  else return give({ kind: 'figure', value: quantity === 'C' ? temperatureMeant(value, units.value) : value })
}
function keepText(): Promise<void> | void {
  const said = text.value.trim().slice(0, 300)
  if (said === '') bad.value = t('run.badText')
  else return give({ kind: 'text', text: said })
}
function keepDay(): Promise<void> | void {
  if (/^\d{4}-\d{2}-\d{2}$/.test(text.value)) return give({ kind: 'day', day: text.value })
  bad.value = t('run.badDay')
}
function leaveOut(): Promise<void> | void {
  const why = reason.value.trim().slice(0, 200)
  if (why === '') bad.value = t('run.needReason')
  else return give({ kind: 'refused', reason: why })
}
const tick = (caution: string, on: boolean) => {
  const next = new Set(ticked.value)
  if (on) next.add(caution)
  else next.delete(caution)
  ticked.value = next
  bad.value = ''
}
const photoOf = computed(() => ({ on: props.step.thing.target, job: props.work.run.value!.job, step: props.step.key }))
const unsettled = computed(() => (does.value.kind === 'settle' ? props.work.unsettled.value : []))
</script>

<template>
  <div class="controls stack">
    <template v-if="!leaving">
      <div v-if="cautions.length > 0" class="cautions">
        <p v-for="c in cautions" :key="c" class="caution">
          <TickBox :model-value="ticked.has(c)" @update:model-value="tick(c, $event)">{{ t(`hazard.${c}`) }}</TickBox>
        </p>
      </div>
      <AppButton v-if="does.kind === 'tick'" look="primary" class="big" @click="give({ kind: 'done' })">
        {{ t('run.done') }}
      </AppButton>
      <PhotoTaker
        v-else-if="does.kind === 'photo'"
        :of="photoOf"
        :disabled="!heeded"
        @taken="give({ kind: 'photo', photo: $event })"
      />
      <div v-else-if="does.kind === 'choice'" class="options">
        <AppButton v-for="o in does.options" :key="o.id" class="big" @click="give({ kind: 'chosen', option: o.id })">
          {{ sayOption(o, speaker) }}
        </AppButton>
      </div>
      <form v-else-if="does.kind === 'figure'" class="row entry" @submit.prevent="keepFigure">
        <div class="field">
          <label for="step-figure">
            {{ t(`run.figure.${does.quantity}`, { unit: units.temperature === 'F' ? '°F' : '°C' }) }}
          </label>
          <TextField
            id="step-figure"
            v-model="text"
            class="figure"
            inputmode="decimal"
            autocomplete="off"
            :aria-invalid="bad !== ''"
          />
        </div>
        <AppButton look="primary" type="submit" class="big">{{ t('run.keep') }}</AppButton>
      </form>
      <template v-else-if="does.kind === 'measure'">
        <HuntAnswer
          v-if="test"
          :test="test"
          :site="property.site!"
          :meter="work.job.value.meter"
          :speaker="speaker"
          :zones="zones"
          @value="measure"
        />
        <p v-else class="doubtful">{{ t('run.noTest') }}</p>
      </template>
      <form v-else-if="does.kind === 'text'" class="stack" @submit.prevent="keepText">
        <div class="field">
          <label for="step-text">{{ t('run.text') }}</label>
          <TextField id="step-text" v-model="text" maxlength="300" autocomplete="off" :aria-invalid="bad !== ''" />
        </div>
        <div class="options">
          <AppButton class="big" @click="give({ kind: 'done' })">{{ t('run.nothingToNote') }}</AppButton>
          <AppButton look="primary" type="submit" class="big">{{ t('run.keep') }}</AppButton>
        </div>
      </form>
      <form v-else-if="does.kind === 'day'" class="row entry" @submit.prevent="keepDay">
        <div class="field">
          <label for="step-day">{{ t('run.day') }}</label>
          <TextField id="step-day" v-model="text" type="date" :aria-invalid="bad !== ''" />
        </div>
        <AppButton look="primary" type="submit" class="big">{{ t('run.keep') }}</AppButton>
      </form>
      <template v-else>
        <SettleReadings :work="work" />
        <AppButton look="primary" class="big" :disabled="unsettled.length > 0" @click="give({ kind: 'done' })">
          {{ unsettled.length > 0 ? t('run.unsettled', unsettled.length) : t('run.done') }}
        </AppButton>
      </template>
    </template>
    <form v-else class="stack" @submit.prevent="leaveOut">
      <div class="field">
        <label for="step-reason">{{ t('run.reason') }}</label>
        <TextField id="step-reason" v-model="reason" maxlength="200" autocomplete="off" autofocus />
      </div>
      <div class="options">
        <AppButton class="big" @click="leaving = false">{{ t('app.cancel') }}</AppButton>
        <AppButton look="primary" type="submit" class="big">{{ t('run.leaveOut') }}</AppButton>
      </div>
    </form>
    <p v-if="bad" class="fault" role="alert">{{ bad }}</p>
    <ul v-if="work.sentences.value.length > 0" class="fault" role="alert">
      <li v-for="s in work.sentences.value" :key="s">{{ s }}</li>
    </ul>
    <AppButton v-if="!leaving" look="plain" class="leave" @click="leaving = true">{{ t('run.notDone') }}</AppButton>
  </div>
</template>

<style scoped>
.controls {
  gap: 12px;
}
.cautions {
  display: grid;
  gap: 6px;
}
.caution {
  padding: 4px 12px;
}
.options {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 8px;
}
.big {
  min-height: 56px;
  font-size: 17px;
}
.entry {
  align-items: end;
}
.entry .field {
  flex: 1 1 120px;
}
.entry .figure {
  font-size: 22px;
  font-weight: 700;
}
.leave {
  justify-self: start;
}
</style>
