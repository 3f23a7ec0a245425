<script setup lang="ts">
import { tagAndName } from '../../../core/site'
import { useAskedController } from '../../composables/useAskedController'
import { useSchedulePage } from '../../composables/useSchedule'

/** The heading of a page that is about one controller, and which one. */
defineProps<{ title: string }>()
const { t } = useSchedulePage()
const { all, controller } = useAskedController()
const router = useRouter()
const options = computed(() => all.value.map(([value, c]) => ({ value, label: tagAndName(c) })))
</script>

<template>
  <div class="row controller-title">
    <h1>{{ title }}</h1>
    <PickBar
      v-if="controller && all.length > 1"
      :model-value="controller"
      :label="t('schedule.controller')"
      :options="options"
      @update:model-value="router.replace({ query: { controller: $event } })"
    />
  </div>
</template>

<style>
.controller-title {
  justify-content: space-between;
}
</style>
