<script setup lang="ts">
import { toldOf, type Run, type RunStep, type StepState } from '../../../core/procedure'
import type { State } from '../../../core/expect'
import { sayStep } from '../../../words/procedure'
import type { useRun } from '../../composables/useRun'

/** Every step of a piece of work with how it stands; one that is tapped comes up. */
const props = defineProps<{ run: Run; work: ReturnType<typeof useRun>; at: string | null }>()
const emit = defineEmits<{ go: [key: string] }>()
const { t, speaker, property } = props.work
const MARKS: Readonly<Record<StepState, State>> = {
  done: 'fits',
  failed: 'fault',
  refused: 'doubtful',
  open: 'none',
  locked: 'none',
}
const says = (s: RunStep) =>
  sayStep(property.site!, props.run.procedure, s, toldOf(property.site!, s.thing), speaker.value).says
</script>

<template>
  <ol class="steps">
    <li v-for="s in run.steps" :key="s.key">
      <AppButton
        look="bare"
        class="step"
        :class="[s.state, { here: s.key === at }]"
        :aria-current="s.key === at ? 'step' : undefined"
        @click="emit('go', s.key)"
      >
        <StateMark :state="MARKS[s.state]" silent />
        <span>{{ says(s) }}</span>
        <span class="sr-only">{{ t(`procedureState.${s.state}`) }}</span>
        <span v-if="s.step.hold" class="hold">{{ t('run.hold') }}</span>
      </AppButton>
    </li>
  </ol>
</template>

<style scoped>
.step {
  display: flex;
  align-items: baseline;
  gap: 10px;
  width: 100%;
  min-height: 44px;
  padding: 8px 10px;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: none;
  text-align: left;
  cursor: pointer;
}
.step > span:first-of-type {
  flex: 1;
}
.step.here {
  background: var(--copper-soft);
  font-weight: 600;
}
.step.done,
.step.locked {
  color: var(--quiet);
}
.hold {
  flex: none;
  font-size: 13px;
  font-weight: 700;
  border: 1px solid currentcolor;
  border-radius: 4px;
  padding: 0 6px;
}
@media (max-width: 759px) {
  .step {
    min-height: 52px;
  }
}
</style>
