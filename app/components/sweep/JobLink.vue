<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { JobLine } from '../../composables/useJobLines'
import { dayText } from '../../composables/useSpeaker'

/** A job in a list, leading to where it goes on or is looked at. */
const props = defineProps<{ line: JobLine; base: string; dated?: boolean }>()
const { t } = useI18n()
const state = computed(() => {
  const { done, faults, doubtful } = props.line
  if (done === 0 || faults === null) return 'none'
  return faults > 0 ? 'fault' : doubtful > 0 ? 'doubtful' : 'fits'
})
const text = computed((): string => {
  const { kind, mended, readings, faults, doubtful, done, all } = props.line
  if (kind === 'hunt') return `${t('test.mended', mended)} · ${t('test.hunted', readings)}`
  const bad = faults === null ? '…' : t('test.faults', faults)
  const unsure = doubtful > 0 ? `, ${t('test.doubtful', { count: doubtful })}` : ''
  return `${bad}${unsure} · ${t('test.count', { done, all })}`
})
const to = computed(() =>
  props.line.kind === 'hunt' ? `${props.base}/diagnose?job=${props.line.id}` : `${props.base}/test/${props.line.id}`,
)
</script>

<template>
  <NuxtLink class="sheet job" :to="to">
    <span>
      <strong>{{ line.title || t('test.of', { name: line.controller }) }}</strong>
      <span class="quiet">{{ ` · ${line.controller}${dated ? ` · ${dayText(line.at)}` : ''}` }}</span>
    </span>
    <span class="row">
      <StateMark v-if="line.kind === 'sweep'" :state="state" silent />
      <span>{{ text }}</span>
      <span class="go">{{ line.closed ? t('test.look') : t('test.resume') }}</span>
    </span>
  </NuxtLink>
</template>
