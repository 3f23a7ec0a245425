<script setup lang="ts">
import { targetKey, type Procedure, type WorkTarget } from '../../../core/record'
import { sayTitle } from '../../../words/procedure'
import { useRuns } from '../../composables/useRuns'
import { useWorkWords } from '../../composables/useWorkWords'
import { useProperty } from '../../stores/property'

/** A piece of work on one thing: where it was begun it goes on, else it begins. */
const props = defineProps<{ target: WorkTarget; procedure: Procedure | null }>()
const route = useRoute()
const property = useProperty()
const { t, speaker } = useWorkWords(() => property.site!.settings.units)
const runs = useRuns()
const begun = computed(() =>
  [...runs.value.values()].find(
    (r) => r.left > 0 && r.procedure.id === props.procedure?.id && targetKey(r.target) === targetKey(props.target),
  ),
)
const beginning = ref(false)
const to = (job: string) => `/p/${String(route.params.id)}/work/procedures/${job}`
</script>

<template>
  <div v-if="procedure">
    <NuxtLink v-if="begun" class="button" :to="to(begun.job)">
      {{ sayTitle(procedure, speaker) }}:
      {{ t('procedures.steps', { done: begun.steps.length - begun.left, all: begun.steps.length }) }}
    </NuxtLink>
    <AppButton v-else @click="beginning = true">{{ sayTitle(procedure, speaker) }}</AppButton>
    <BeginWork
      v-if="beginning"
      v-model:visible="beginning"
      :procedure="procedure"
      :target="target"
      @begun="(job) => navigateTo(to(job))"
    />
  </div>
</template>
