<script setup lang="ts">
import { doneBy } from '../../../core/order'
import { lengthText } from '../../../core/quantity'
import type { Part } from '../../../core/record'
import type { Possible } from '../../../core/repair'
import type { ControllerId } from '../../../core/site'
import { sayNearby, sayRepair, sayRisk, sayWhyNot } from '../../../words/repair'
import { usePlan } from '../../composables/usePlan'
import { useRepairs } from '../../composables/useRepairs'
import { toldBatch } from '../../lib/told-batch'

/**
 * All that can be done about a part that was found bad, side by side. One that is taken says what the record becomes,
 * and is written down in one batch once the crew has done it.
 */
const props = defineProps<{ controller: ControllerId; where: Part; part: string; writable: boolean }>()
const emit = defineEmits<{ mended: [how: string] }>()
const isOpen = ref(false)
const { property, t, speaker, seen, behind, prices } = useRepairs(
  () => props.controller,
  () => (isOpen.value ? props.where : null),
)
const possible = computed(() => (seen.value?.options ?? []).flatMap((o) => (o.possible ? [o] : [])))
const others = computed(() => (seen.value?.options ?? []).flatMap((o) => (o.possible ? [] : [o])))
const money = (cents: number) => (cents / 100).toFixed(2)
const by = (option: Possible) => doneBy(property.site!, props.where, option.code)
const taken = ref<Possible['code'] | null>(null)
const done = ref(false)
const { keep, sentences } = usePlan(() => speaker.value)

async function write(option: Possible): Promise<void> {
  if (!(await keep({ ok: true, value: [...option.commands] }))) return
  taken.value = null
  done.value = true
  if (!option.isTemporary) emit('mended', sayRepair(option.code, speaker.value))
}
</script>

<template>
  <details class="sheet folds" @toggle="isOpen = ($event.target as HTMLDetailsElement).open">
    <summary>
      <h2>{{ t('repairs.title', { part }) }}</h2>
    </summary>
    <div class="stack">
      <p class="quiet">
        {{ t('repairs.how') }}
        {{ prices ? t('repairs.byPrices', { currency: prices.currency }) : t('repairs.byUsual') }}
      </p>
      <p v-if="done" role="status">{{ t('repairs.done') }}</p>
      <p v-if="!seen || behind" class="quiet">{{ t('repairs.working') }}</p>
      <ul v-if="sentences.length > 0" class="fault" role="alert">
        <li v-for="s in sentences" :key="s">{{ s }}</li>
      </ul>
      <ol class="options">
        <li v-for="o in possible" :key="o.code" class="option">
          <div>
            <strong>{{ sayRepair(o.code, speaker) }}</strong>
            <p>
              {{ t('repairs.minutes', Math.round(o.minutes)) }} · {{ t('repairs.cost', { cost: money(o.cents) }) }}
              <template v-if="o.material_cents > 0">
                · {{ t('repairs.material', { material: money(o.material_cents) }) }}
              </template>
              <template v-if="o.dig_m > 0">
                · {{ t('repairs.dig', { length: lengthText(o.dig_m, property.site!.settings.units) }) }}
              </template>
            </p>
            <p class="quiet">{{ sayRisk(o.risk, speaker) }}</p>
            <p v-if="o.isTemporary" class="doubtful">{{ t('repairs.forNow') }}</p>
            <template v-if="taken === o.code">
              <p>{{ toldBatch(o.commands, speaker) }}</p>
              <WorkButton v-if="by(o)" :target="by(o)!.on" :procedure="by(o)!.procedure" />
              <p class="row">
                <AppButton look="primary" :disabled="behind" @click="write(o)">{{ t('repairs.write') }}</AppButton>
                <AppButton @click="taken = null">{{ t('repairs.leave') }}</AppButton>
              </p>
            </template>
          </div>
          <AppButton v-if="writable && taken !== o.code" @click="taken = o.code">{{ t('repairs.take') }}</AppButton>
        </li>
      </ol>
      <div v-if="others.length > 0">
        <h3>{{ t('repairs.not') }}</h3>
        <ul class="quiet">
          <li v-for="o in others" :key="o.code">{{ sayRepair(o.code, speaker) }}: {{ sayWhyNot(o.why, speaker) }}</li>
        </ul>
      </div>
      <div v-if="seen && seen.nearby.length > 0">
        <h3>{{ t('repairs.nearby') }}</h3>
        <ul>
          <li v-for="(n, i) in seen.nearby" :key="i">
            {{ sayNearby(n, speaker) }}
            <span class="quiet">{{ t('repairs.saves', { minutes: Math.round(n.minutes), saves: n.saves_min }) }}</span>
          </li>
        </ul>
      </div>
    </div>
  </details>
</template>

<style scoped>
.options {
  list-style: none;
  margin: 0;
  padding: 0;
}
.option {
  display: flex;
  justify-content: space-between;
  align-items: flex-start;
  gap: 12px;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}
.option:last-child {
  border-bottom: 0;
}
.option > :first-child {
  flex: 1;
  min-width: 0;
}
h3 {
  font-size: 15px;
}
@media (max-width: 759px) {
  .option {
    flex-direction: column;
  }
}
</style>
