<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { QuoteTurn } from '../../../core/record'
import type { SentAndTotals } from '../../composables/useSentQuotes'
import { dayText } from '../../composables/useSpeaker'
import { signaturePath, SIGN_HEIGHT, SIGN_WIDTH } from '../../lib/signature'
import { today } from '../../lib/today'

/** A quote as it was sent: how it stands, what was accepted, and what can be done with it. */
const props = defineProps<{ sent: SentAndTotals; busy: boolean; writable: boolean }>()
const emit = defineEmits<{ turn: [to: QuoteTurn['to']]; print: []; csv: []; order: [] }>()
const { t } = useI18n()
const answering = ref(false)
const answer = computed(() => (props.sent.turn?.to.kind === 'answered' ? props.sent.turn.to : null))
const isLate = computed(
  () => props.sent.state === 'open' && props.sent.quote.until !== null && props.sent.quote.until < today(),
)
const stateOf = (key: string) =>
  props.sent.done.has(key) ? 'done' : props.sent.accepted.has(key) ? 'accepted' : answer.value ? 'declined' : null
const left = computed(() => props.sent.accepted.size - props.sent.done.size)
</script>

<template>
  <article class="sheet stack sent" :class="sent.state">
    <header class="row head">
      <h3>{{ t('sent.of', { day: dayText(sent.quote.at), by: sent.quote.author || t('sent.somebody') }) }}</h3>
      <strong class="figure">{{ (sent.agreed ?? sent.whole).total }} {{ sent.whole.currency }}</strong>
    </header>
    <p>
      {{
        answer
          ? t(`sent.state.${sent.state}`, { name: answer.name, day: dayText(sent.turn!.at) })
          : t(`sent.state.${sent.state}`, { name: '', day: dayText(sent.turn?.at ?? sent.quote.at) })
      }}
      <template v-if="sent.agreed">{{ t('sent.ofWhole', { total: sent.whole.total }) }}</template>
      <span v-if="isLate" class="bad">{{ t('sent.late', { day: dayText(`${sent.quote.until}T12:00:00`) }) }}</span>
      <span v-else-if="sent.quote.until && sent.state === 'open'" class="quiet">
        {{ t('sent.until', { day: dayText(`${sent.quote.until}T12:00:00`) }) }}
      </span>
    </p>
    <ul class="items">
      <li v-for="i in sent.quote.items" :key="i.key">
        {{ i.says }}
        <span v-if="stateOf(i.key)" class="quiet">· {{ t(`sent.item.${stateOf(i.key)}`) }}</span>
      </li>
    </ul>
    <svg
      v-if="answer?.signature"
      class="signature"
      :viewBox="`0 0 ${SIGN_WIDTH} ${SIGN_HEIGHT}`"
      role="img"
      :aria-label="t('sent.signedBy', { name: answer.name })"
    >
      <path :d="signaturePath(answer.signature)" />
    </svg>
    <p class="row">
      <AppButton v-if="writable && sent.state === 'open'" look="primary" @click="answering = true">
        {{ t('sent.answer') }}
      </AppButton>
      <AppButton v-if="left > 0" look="primary" @click="emit('order')">{{ t('sent.order', left) }}</AppButton>
      <AppButton :disabled="busy" @click="emit('print')">{{ t('quotes.pdf') }}</AppButton>
      <AppButton @click="emit('csv')">{{ t(sent.agreed ? 'sent.invoice' : 'quotes.csv') }}</AppButton>
      <template v-if="writable && sent.done.size === 0">
        <AppButton v-if="sent.state === 'open'" look="plain" @click="emit('turn', { kind: 'withdrawn', why: '' })">
          {{ t('sent.withdraw') }}
        </AppButton>
        <AppButton v-else look="plain" @click="emit('turn', { kind: 'open' })">{{ t('sent.reopen') }}</AppButton>
      </template>
    </p>
    <LazyQuoteAnswer v-if="answering" v-model:visible="answering" :sent="sent" @answer="emit('turn', $event)" />
  </article>
</template>

<style scoped>
.head {
  justify-content: space-between;
}
.sent.accepted {
  border-left: 5px solid var(--fits, var(--copper));
}
.sent.withdrawn {
  opacity: 0.75;
}
.items {
  list-style: disc;
  padding-left: 20px;
}
.signature {
  width: 200px;
  background: #fff;
  border: 1px solid var(--rule);
}
.signature path {
  fill: none;
  stroke: #1c1a17;
  stroke-width: 6;
  stroke-linecap: round;
  stroke-linejoin: round;
}
</style>
