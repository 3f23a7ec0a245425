<script setup lang="ts">
import { ohmsWithUnit } from '../../../core/quantity'
import type { OrderItem, OrderPart } from '../../../core/order'
import type { Possible } from '../../../core/repair'
import { getOrThrow } from '../../../core/site'
import type { WorkDone } from '../../../core/record'
import { useWorkWords } from '../../composables/useWorkWords'
import { useProperty } from '../../stores/property'
import { toldBatch } from '../../lib/told-batch'

/**
 * One thing of a work order: how it is done, what is read afterwards, and that it is done, with how long it took and
 * what was really used. A repair is written into the record by the same press, told before it is made.
 */
const props = defineProps<{
  item: OrderItem
  parts: readonly OrderPart[]
  /** What the record becomes once it is done; null where there is nothing to be written. */
  option: Possible | null
  /** Repairs are being worked out still: what would be written is not known yet. */
  behind: boolean
  writable: boolean
}>()
const emit = defineEmits<{ done: [work: Pick<WorkDone, 'minutes' | 'used' | 'undone'>] }>()
const property = useProperty()
const { t, speaker } = useWorkWords(() => property.site!.settings.units)

const name = useId()
const telling = ref(false)
const minutes = ref('')
const used = ref<Record<string, string>>({})
const figureOf = (text: string): number | null => {
  const value = Number(text.trim().replace(',', '.'))
  return text.trim() === '' || !Number.isFinite(value) || value < 0 ? null : value
}
function tell(): void {
  used.value = Object.fromEntries(props.parts.map((p) => [p.code, String(p.quantity)]))
  telling.value = true
}
function done(): void {
  const quantities = props.parts.flatMap(({ code }) => {
    const quantity = figureOf(used.value[code] ?? '')
    return quantity === null ? [] : [{ code, quantity }]
  })
  emit('done', { minutes: figureOf(minutes.value), used: quantities, undone: false })
  telling.value = false
}
</script>

<template>
  <li class="item">
    <div class="row head">
      <span>
        <strong>{{ item.item.says }}</strong>
        ·
        <span class="quiet">{{ t('order.minutes', { minutes: Math.round(item.minutes) }) }}</span>
      </span>
      <AppButton v-if="writable && !telling" @click="tell">{{ t('order.done') }}</AppButton>
    </div>
    <WorkButton v-if="item.by" :target="item.by.on" :procedure="item.by.procedure" />
    <ul v-if="item.toRead.length > 0" class="quiet">
      <li v-for="r in item.toRead" :key="r.expected.terminal">
        {{
          t('order.read', {
            label: getOrThrow(getOrThrow(property.site!.controllers, r.controller).terminals, r.expected.terminal).tag,
            ohms:
              r.expected.expectation.kind === 'ohms'
                ? ohmsWithUnit(r.expected.expectation.expected_ohm)
                : t('order.open'),
          })
        }}
      </li>
    </ul>
    <form v-if="telling" class="stack told" @submit.prevent="done">
      <p v-if="behind && item.isBad" class="quiet">{{ t('quotes.working') }}</p>
      <p v-else-if="option">{{ toldBatch(option.commands, speaker) }}</p>
      <p v-else-if="item.isBad" class="doubtful">{{ t('order.notWritten') }}</p>
      <div class="row fields">
        <div class="field">
          <label :for="`${name}-took`">{{ t('order.took') }}</label>
          <TextField :id="`${name}-took`" v-model="minutes" class="input figure" inputmode="decimal" />
        </div>
        <div v-for="p in parts" :key="p.code" class="field">
          <label :for="`${name}-used-${p.code}`">{{ t('order.used', { name: p.name }) }}</label>
          <TextField :id="`${name}-used-${p.code}`" v-model="used[p.code]" class="input figure" inputmode="decimal" />
        </div>
      </div>
      <p class="row">
        <AppButton look="primary" type="submit" :disabled="behind && item.isBad">{{ t('order.keep') }}</AppButton>
        <AppButton look="plain" @click="telling = false">{{ t('app.cancel') }}</AppButton>
      </p>
    </form>
  </li>
</template>

<style scoped>
.item {
  display: grid;
  gap: 6px;
  padding: 8px 0;
  border-top: 1px solid var(--rule);
}
.head {
  justify-content: space-between;
}
.fields {
  align-items: end;
}
.fields .field {
  width: 150px;
}
</style>
