<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { sizingCommands } from '../../../core/sizing'
import type { Units } from '../../../core/quantity'
import type { Site } from '../../../core/site'
import { sayMend, sayWeakest } from '../../../words/sizing'
import { usePlan } from '../../composables/usePlan'
import { useSizing } from '../../composables/useSizing'
import { useSpeaker } from '../../composables/useSpeaker'

/** New wire: which sizes are settled, the cheapest choice for the rest, and writing it into the plan. */
const props = defineProps<{ site: Site; asked: Site; changed: boolean; units: Units; fixed: boolean }>()
const { t } = useI18n()
const { speaker } = useSpeaker(() => props.units)
const { running, answer, start, stop } = useSizing()
const { keep, sentences } = usePlan(() => speaker.value)
watch(
  () => props.asked,
  () => {
    answer.value = null
  },
)
const anew = ref(false)
const found = computed(() => (answer.value?.kind === 'sized' ? answer.value : null))
const writeIn = async () => {
  if (found.value && (await keep({ ok: true, value: sizingCommands(props.site, found.value) }))) answer.value = null
}
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('sizes.newWire') }}</h2>
    <SettledSizes :site="site" :fixed="fixed" />
    <TickBox v-model="anew">{{ t('sizes.anew') }}</TickBox>
    <SizingRun :running="running" @start="start(asked, anew)" @stop="stop" />
    <ul v-if="sentences.length > 0" class="fault" role="alert">
      <li v-for="s in sentences" :key="s">{{ s }}</li>
    </ul>
    <div v-if="answer" class="stack" role="status">
      <p :class="{ fault: answer.kind === 'infeasible' || answer.kind === 'beyond_table' }">
        <strong>{{ sayWeakest(answer, asked, speaker) }}</strong>
      </p>
      <template v-if="answer.kind === 'infeasible'">
        <p v-if="answer.mends.length > 0">{{ t('sizes.mends') }}</p>
        <p v-else>{{ t('sizes.noMend') }}</p>
        <ul class="dots">
          <li v-for="m in answer.mends" :key="m.code">{{ sayMend(m, speaker) }}</li>
        </ul>
      </template>
      <SizesFound v-if="found" :site="site" :found="found" :changed="changed" :fixed="fixed" @write="writeIn" />
    </div>
    <p class="quiet small">{{ t('sizes.costHow') }}</p>
  </section>
</template>

<style scoped>
.dots {
  list-style: disc;
  padding-left: 20px;
}
.small {
  font-size: 13px;
}
@media (max-width: 759px) {
  .small {
    font-size: 15px;
  }
}
</style>
