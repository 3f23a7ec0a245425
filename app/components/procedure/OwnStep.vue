<script setup lang="ts">
import { originalOf, withStep } from '../../../core/procedure'
import { HAZARDS, type Procedure, type Step } from '../../../core/record'
import { NAMES, sayOption } from '../../../words/procedure'
import { useWorkWords } from '../../composables/useWorkWords'
import { valueOf } from '../../lib/fields'
import { figureIn } from '../../lib/figures'
import { optionsOf } from '../../lib/options'
import { ANSWERS, answerOf, doesOf, linesOf, optionsOfLines, READ, type Answer } from '../../lib/own-steps'

/**
 * One step of a company’s own procedure, to be changed: of ours the words, more cautions, a hold; of theirs everything.
 */
const props = defineProps<{ copy: Procedure; at: number; says: (step: Step) => string }>()
const emit = defineEmits<{ change: [copy: Procedure] }>()
const { t, speaker } = useWorkWords(() => ({ length: 'm', temperature: 'C' }))
const step = computed(() => props.copy.steps[props.at]!)
const ours = computed(() => originalOf(props.copy, step.value.id))
const id = computed(() => `step-${step.value.id}`)
const oursSays = computed(() => (ours.value ? props.says(ours.value) : ''))

const how = computed(() => {
  const names = t('own.names', { names: NAMES.map((n) => `{${n}}`).join(' ') })
  return ours.value ? `${t('own.saysOurs')}. ${names}` : names
})

const put = (more: Partial<Step>) => emit('change', withStep(props.copy, props.at, { ...step.value, ...more }))
/** Words of a field; an empty one has none of its own. */
const worded = (event: Event) => valueOf(event).trim().slice(0, 300) || undefined

const answers = computed(() =>
  optionsOf(
    [...ANSWERS, ...(['terminal', 'coil', 'device'].includes(props.copy.on) ? READ : [])] as Answer[],
    (answer) => t(`stepAnswer.${answer}`),
  ),
)
const choice = computed(() => (step.value.does.kind === 'choice' ? step.value.does.options : null))
const figure = computed(() => (step.value.does.kind === 'figure' ? step.value.does : null))
/** What stands in the lists while it is typed: a line that is still empty is not taken away under the hand. */
const [passing, shutting] = [ref(''), ref('')]
watch(
  choice,
  (options) => {
    if (!options) return
    const written = optionsOfLines(passing.value, shutting.value)
    if (JSON.stringify(written) === JSON.stringify(options)) return
    passing.value = linesOf(options, true)
    shutting.value = linesOf(options, false)
  },
  { immediate: true },
)
const putChoice = () => put({ does: { kind: 'choice', options: optionsOfLines(passing.value, shutting.value) } })

const LIMIT = 1e9
const MOST_MINUTES = 600
const bad = ref<'low' | 'high' | 'minutes' | null>(null)
/** The figure of a field, undefined where it is none; an empty field has none, which is null. */
function figureOf(field: 'low' | 'high' | 'minutes', event: Event, low: number, high: number) {
  const text = valueOf(event).trim()
  const value = text === '' ? null : figureIn(text, low, high)
  bad.value = text !== '' && value === null ? field : null
  return bad.value ? undefined : value
}
function putLimit(field: 'low' | 'high', event: Event): void {
  const value = figureOf(field, event, -LIMIT, LIMIT)
  if (value !== undefined && figure.value) put({ does: { ...figure.value, [field]: value } })
}
function putMinutes(event: Event): void {
  const value = figureOf('minutes', event, 0.1, MOST_MINUTES)
  if (value !== undefined) put({ minutes: value ?? undefined })
}

/** The answers of earlier steps that this one may depend on. */
const conditions = computed(() => [
  { value: '', label: t('own.always') },
  ...props.copy.steps.slice(0, props.at).flatMap((other) =>
    other.does.kind === 'choice'
      ? other.does.options.map((o) => ({
          value: `${other.id} ${o.id}`,
          label: t('own.whenIs', { step: props.says(other), answer: sayOption(o, speaker.value) }),
        }))
      : [],
  ),
])
const condition = computed(() => {
  const [first] = step.value.when
  return first ? `${first.step} ${first.is[0]}` : ''
})
function putCondition(key: string): void {
  const [other, option] = key.split(' ')
  put({ when: option === undefined ? [] : [{ step: other!, is: [option] }] })
}
</script>

<template>
  <div class="stack own-step">
    <div class="field">
      <label :for="`${id}-says`">{{ t('own.says') }}</label>
      <TextArea
        :id="`${id}-says`"
        :model-value="step.says ?? ''"
        rows="2"
        maxlength="300"
        :placeholder="oursSays"
        @input="put({ says: worded($event) })"
      />
      <p class="how">
        {{ how }}
      </p>
    </div>
    <div class="field">
      <label :for="`${id}-why`">{{ t('own.why') }}</label>
      <TextField
        :id="`${id}-why`"
        :model-value="step.why ?? ''"
        maxlength="300"
        @input="put({ why: worded($event) })"
      />
    </div>
    <PickSome
      :model-value="step.cautions"
      :options="optionsOf(HAZARDS, (h) => t(`hazard.${h}`))"
      :fixed="ours?.cautions ?? []"
      :label="t('own.cautions')"
      :none="t('own.count', 0)"
      @update:model-value="put({ cautions: $event })"
    >
      <p v-if="ours && ours.cautions.length > 0" class="how">{{ t('own.cautionsOurs') }}</p>
    </PickSome>
    <TickBox :model-value="step.hold" :disabled="ours?.hold" @update:model-value="put({ hold: $event })">
      {{ t('own.hold') }}
    </TickBox>
    <p v-if="ours" class="quiet">{{ t('own.answer') }}: {{ t(`stepAnswer.${answerOf(step)}`) }}</p>
    <template v-else>
      <PickOne
        :model-value="answerOf(step) as Answer"
        :options="answers"
        :label="t('own.answer')"
        @update:model-value="put({ does: doesOf($event) })"
      />
      <div v-if="choice" class="row pair">
        <div class="field">
          <label :for="`${id}-passing`">{{ t('own.passing') }}</label>
          <TextArea :id="`${id}-passing`" v-model="passing" rows="3" @input="putChoice" />
        </div>
        <div class="field">
          <label :for="`${id}-shutting`">{{ t('own.shutting') }}</label>
          <TextArea :id="`${id}-shutting`" v-model="shutting" rows="3" @input="putChoice" />
        </div>
      </div>
      <div v-if="figure" class="row pair">
        <div v-for="limit in ['low', 'high'] as const" :key="limit" class="field">
          <label :for="`${id}-${limit}`">{{ t(`own.${limit}`) }}</label>
          <TextField
            :id="`${id}-${limit}`"
            :model-value="String(figure[limit] ?? '')"
            inputmode="decimal"
            :aria-invalid="bad === limit"
            @change="putLimit(limit, $event)"
          />
          <p v-if="bad === limit" class="bad" role="alert">
            {{ t('own.badFigure', { low: -LIMIT, high: LIMIT }) }}
          </p>
        </div>
      </div>
      <div class="row pair">
        <PickOne
          :model-value="condition"
          :options="conditions"
          :label="t('own.when')"
          @update:model-value="putCondition"
        />
        <div class="field">
          <label :for="`${id}-minutes`">{{ t('own.minutes') }}</label>
          <TextField
            :id="`${id}-minutes`"
            :model-value="String(step.minutes ?? '')"
            inputmode="decimal"
            :aria-invalid="bad === 'minutes'"
            @change="putMinutes"
          />
          <p v-if="bad === 'minutes'" class="bad" role="alert">
            {{ t('own.badFigure', { low: 0.1, high: MOST_MINUTES }) }}
          </p>
        </div>
      </div>
    </template>
  </div>
</template>

<style scoped>
.own-step {
  gap: 12px;
}
.own-step :deep(textarea) {
  font: inherit;
}
.pair {
  align-items: start;
}
.pair > * {
  flex: 1 1 220px;
}
</style>
