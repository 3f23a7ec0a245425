<script setup lang="ts">
import { ohmsWithUnit } from '../../../core/quantity'
import type { Unsettled } from '../../../core/procedure'
import { sayTest } from '../../../words/hunt'
import { sayVerdict } from '../../../words/reading'
import type { useRun } from '../../composables/useRun'

/** The readings of a job that do not fit, each to be read anew or taken as baseline with its reason. */
const props = defineProps<{ work: ReturnType<typeof useRun> }>()
const { t, speaker, property, unsettled, accept } = props.work
const reasons = reactive<Record<string, string>>({})
const bad = ref('')
async function take(id: string): Promise<void> {
  const reason = (reasons[id] ?? '').trim().slice(0, 200)
  bad.value = reason === '' ? id : ''
  if (reason !== '') await accept(id, reason)
}
const valueOf = ({ reading: { value, meter } }: Unsettled) =>
  value.kind === 'ohm' ? ohmsWithUnit(value.ohm) : meter.openMark
</script>

<template>
  <p v-if="unsettled.length === 0" class="fits row">
    <StateMark state="fits" silent />
    {{ t('run.settled') }}
  </p>
  <ul v-else class="stack settle">
    <li v-for="u in unsettled" :key="u.id" class="stack">
      <p>
        <strong>{{ sayTest(u.reading.test, property.site!, speaker) }}</strong>
        {{ ' ' }}
        <span class="figure">{{ valueOf(u) }}</span>
      </p>
      <p class="doubtful">{{ sayVerdict(u.judged.verdict, u.reading.meter, speaker) }}</p>
      <form class="row" @submit.prevent="take(u.id)">
        <div class="field">
          <label :for="`why-${u.id}`">{{ t('run.acceptWhy') }}</label>
          <TextField :id="`why-${u.id}`" v-model="reasons[u.id]" maxlength="200" autocomplete="off" />
        </div>
        <AppButton type="submit">{{ t('run.accept') }}</AppButton>
      </form>
      <p v-if="bad === u.id" class="fault" role="alert">{{ t('run.needWhy') }}</p>
    </li>
  </ul>
</template>

<style scoped>
.settle {
  gap: 12px;
  max-height: 44vh;
  overflow: auto;
}
.settle li {
  gap: 4px;
  border-bottom: 1px solid var(--rule);
  padding-bottom: 8px;
}
.settle form {
  align-items: end;
}
.settle .field {
  flex: 1 1 160px;
}
</style>
