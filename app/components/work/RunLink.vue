<script setup lang="ts">
import { toldOf, type Run } from '../../../core/procedure'
import { sayThing, sayTitle } from '../../../words/procedure'
import { dayText } from '../../composables/useSpeaker'
import { useWorkWords } from '../../composables/useWorkWords'
import { useProperty } from '../../stores/property'

/** A piece of work in a list, leading to its next step. */
const props = defineProps<{ run: Run; base: string; dated?: boolean }>()
const property = useProperty()
const { t, speaker } = useWorkWords(() => property.site!.settings.units)
const thing = computed(() => {
  const { target } = props.run
  return target.kind === 'property'
    ? ''
    : sayThing(property.site!, { target }, toldOf(property.site!, { target }), speaker.value)
})
const steps = computed(() => ({ done: props.run.steps.length - props.run.left, all: props.run.steps.length }))
const at = computed(() => property.facts!.jobs[props.run.job]!.at)
</script>

<template>
  <NuxtLink class="sheet job" :to="`${base}/work/procedures/${run.job}`">
    <span>
      <strong>{{ sayTitle(run.procedure, speaker) }}</strong>
      <span class="quiet">{{ `${thing ? ` · ${thing}` : ''}${dated ? ` · ${dayText(at)}` : ''}` }}</span>
    </span>
    <span class="row">
      <StateMark :state="run.left === 0 ? 'fits' : 'none'" silent />
      <span>{{ run.left === 0 ? t('procedures.finished') : t('procedures.steps', steps) }}</span>
      <span class="go">{{ run.left === 0 ? t('test.look') : t('procedures.goOn') }}</span>
    </span>
  </NuxtLink>
</template>
