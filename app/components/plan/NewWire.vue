<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { sizingCommands } from '../../../core/sizing'
import { gaugeText, lengthText, type Units } from '../../../core/quantity'
import { getOrThrow, type CableId, type Site } from '../../../core/site'
import { moneyText, sayMend, sayWeakest } from '../../../words/sizing'
import { useCableName } from '../../composables/useCableName'
import { usePlan } from '../../composables/usePlan'
import { useSizing } from '../../composables/useSizing'
import { unbroken, useSpeaker } from '../../composables/useSpeaker'
import type { TableColumn } from '../../lib/table'

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
const nameOf = useCableName(() => props.site)
const found = computed(() => (answer.value?.kind === 'sized' ? answer.value : null))
const chosen = computed(
  () =>
    found.value &&
    found.value.groups.map((g, i) => {
      const cable = lookUpCable(g.cable)
      const stocked = found.value!.stock[found.value!.chosen[i]!]!
      return {
        key: `${g.cable} ${g.from}`,
        name: cable ? nameOf(g.cable) : t('whatIf.title'),
        from: cable ? getOrThrow(props.site.places, cable.stops[g.from]!.place).tag : '',
        to: cable ? getOrThrow(props.site.places, cable.stops[g.to]!.place).tag : '',
        length_m: g.length_m,
        size: gaugeText(stocked.gauge),
        cents: Math.round(g.length_m * stocked.cents_per_m),
        was: g.now ? gaugeText(g.now) : null,
      }
    }),
)
const lookUpCable = (id: CableId) => props.site.cables[id] as Site['cables'][CableId] | undefined
const writeIn = async () => {
  if (found.value && (await keep({ ok: true, value: sizingCommands(props.site, found.value) }))) answer.value = null
}
const saving = computed(() =>
  found.value?.uniform ? Math.round((1 - found.value.cost_cents / found.value.uniform.cost_cents) * 100) : null,
)
const columns = computed<TableColumn<NonNullable<typeof chosen.value>[number]>[]>(() => [
  { key: 'cable', header: t('plan.cell.cable'), sort: (c) => c.name },
  { key: 'way', header: t('plan.way'), figure: true },
  { key: 'metres', header: t('sizes.metres'), figure: true, sort: (c) => c.length_m },
  { key: 'size', header: t('plan.size'), figure: true, sort: (c) => c.size },
  { key: 'cost', header: t('sizes.cost'), figure: true, sort: (c) => c.cents },
])
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('sizes.newWire') }}</h2>
    <SettledSizes :site="site" :fixed="fixed" />
    <TickBox v-model="anew">{{ t('sizes.anew') }}</TickBox>
    <p class="row">
      <AppButton v-if="!running" look="primary" @click="start(asked, anew)">
        {{ t('sizes.choose') }}
      </AppButton>
      <AppButton v-else @click="stop">{{ t('sizes.stop') }}</AppButton>
      <span v-if="running" class="quiet" role="status">
        {{
          running.best_cents === null
            ? t('sizes.searching')
            : t('sizes.bestSoFar', {
                best: moneyText(running.best_cents),
                bound: moneyText(Math.max(0, running.bound_cents ?? 0)),
              })
        }}
      </span>
    </p>
    <ProgressLine
      v-if="running"
      :label="t('sizes.searching')"
      :percent="running.best_cents ? Math.max(0, (100 * (running.bound_cents ?? 0)) / running.best_cents) : null"
    />
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
      <template v-if="found && chosen">
        <p v-if="found.uniform && saving !== null" class="quiet">
          {{
            t('sizes.saving', {
              part: saving,
              size: gaugeText(found.uniform.stocked.gauge),
              cost: moneyText(found.uniform.cost_cents),
            })
          }}
        </p>
        <AppTable
          :rows="chosen"
          :columns="columns"
          :row-key="(c) => c.key"
          :sums="{ cable: t('term.sum'), cost: moneyText(found.cost_cents) }"
          :label="t('sizes.newWire')"
        >
          <template #cable="{ row: c }">{{ c.name }}</template>
          <template #way="{ row: c }">{{ c.from }}–{{ c.to }}</template>
          <template #metres="{ row: c }">{{ unbroken(lengthText(c.length_m, units)) }}</template>
          <template #size="{ row: c }">
            <strong>{{ c.size }}</strong>
            {{ ' ' }}
            <span v-if="c.was && c.was !== c.size" class="quiet">{{ t('sizes.insteadOf', { was: c.was }) }}</span>
          </template>
          <template #cost="{ row: c }">{{ moneyText(c.cents) }}</template>
        </AppTable>
        <p v-if="changed" class="quiet">{{ t('sizes.onlyIf') }}</p>
        <p v-else class="row">
          <AppButton :disabled="fixed" @click="writeIn">{{ t('sizes.writeIn') }}</AppButton>
        </p>
      </template>
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
