<script setup lang="ts">
import { parseOhms } from '../../../core/quantity'
import type { CoresWork } from '../../composables/useCores'

/** Ohms of the tags, read at the second end one after the other; what reads open is left empty. */
const props = defineProps<{ work: CoresWork; ends: readonly number[] }>()
const { t, coreName, writeAll } = props.work
const texts = ref<Record<number, string>>({})
const bad = ref('')

async function keep(): Promise<void> {
  const read = props.ends.map((at) => {
    const text = texts.value[at]?.trim() ?? ''
    return { at, text, ohm: text === '' ? null : parseOhms(text) }
  })
  const wrong = read.find(({ text, ohm }) => text !== '' && ohm === null)
  bad.value = wrong ? t('cores.readBad', { core: coreName('second', wrong.at), text: wrong.text }) : ''
  if (!wrong) await writeAll(read.map(({ at, ohm }) => ({ kind: 'read', at, ohm })))
}
</script>

<template>
  <form class="stack" novalidate @submit.prevent="keep">
    <div class="ohms">
      <div v-for="end in ends" :key="end" class="field">
        <label :for="`ohm-${end}`">{{ coreName('second', end) }}</label>
        <TextField :id="`ohm-${end}`" v-model="texts[end]" inputmode="decimal" autocomplete="off" />
      </div>
    </div>
    <p v-if="bad" class="fault" role="alert">{{ bad }}</p>
    <div class="row foot">
      <AppButton look="primary" type="submit">{{ t('cores.readDone') }}</AppButton>
    </div>
  </form>
</template>

<style scoped>
.ohms {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(110px, 1fr));
  gap: 12px;
}
</style>
