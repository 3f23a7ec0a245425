<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { itemSums, sentTotals } from '../../../core/quote'
import type { QuoteTurn, Signature } from '../../../core/record'
import type { SentAndTotals } from '../../composables/useSentQuotes'
import { dayText } from '../../composables/useSpeaker'

/** The customer’s answer: item by item, by name, signed on the glass or on paper. */
const visible = defineModel<boolean>('visible', { required: true })
const props = defineProps<{ sent: SentAndTotals }>()
const emit = defineEmits<{ answer: [to: QuoteTurn['to']] }>()
const { t } = useI18n()

const accepted = ref<string[]>(props.sent.quote.items.map((i) => i.key))
const name = ref('')
const signature = shallowRef<Signature | null>(null)
const agreed = computed(() => sentTotals(props.sent.quote, new Set(accepted.value)))
const sums = computed(() => itemSums(props.sent.quote, props.sent.whole))
const inOrder = () => props.sent.quote.items.map((i) => i.key).filter((k) => accepted.value.includes(k))
function answer(): void {
  if (name.value.trim() === '') return
  emit('answer', { kind: 'answered', accepted: inOrder(), name: name.value.trim(), signature: signature.value })
  visible.value = false
}
</script>

<template>
  <AppDialog v-model:visible="visible" :title="t('sent.answer')">
    <form class="stack" @submit.prevent="answer">
      <fieldset class="stack">
        <legend class="quiet">{{ t('sent.which', { day: dayText(sent.quote.at) }) }}</legend>
        <TickBox
          v-for="i in sent.quote.items"
          :key="i.key"
          :model-value="accepted.includes(i.key)"
          @update:model-value="accepted = $event ? [...accepted, i.key] : accepted.filter((k) => k !== i.key)"
        >
          {{ i.says }}
          <span class="figure quiet">{{ sums.get(i.key) }}</span>
        </TickBox>
      </fieldset>
      <p v-if="agreed.ok" aria-live="polite">
        <strong class="figure">
          {{
            accepted.length === 0
              ? t('sent.none')
              : t('sent.agreed', { total: agreed.value.total, currency: agreed.value.currency })
          }}
        </strong>
      </p>
      <div class="field">
        <label for="signer">{{ t('sent.name') }}</label>
        <TextField id="signer" v-model="name" maxlength="80" autocomplete="off" />
      </div>
      <SignHere v-model="signature" :label="t('sent.sign')" />
      <p class="quiet">{{ t('sent.signHow') }}</p>
      <div class="row end">
        <AppButton look="primary" type="submit" :disabled="name.trim() === ''">
          {{ t(accepted.length === 0 ? 'sent.decline' : 'sent.accept') }}
        </AppButton>
      </div>
    </form>
  </AppDialog>
</template>

<style scoped>
fieldset {
  border: none;
  padding: 0;
  margin: 0;
}
</style>
