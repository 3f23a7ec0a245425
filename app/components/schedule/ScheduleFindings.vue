<script setup lang="ts">
import type { Changed } from '../../../core/schedule'
import { useSchedulePage } from '../../composables/useSchedule'
import { readableTimes } from '../../lib/finding-params'
import type { FoundMend } from '../../workers/schedule'

/** What is wrong with a schedule, each with the press that mends it where one does. */
defineProps<{ found: readonly FoundMend[]; fixed: boolean }>()
const emit = defineEmits<{ mend: [change: Changed] }>()
const { t } = useSchedulePage()
const route = useRoute()
/** What only another wire or transformer mends. */
const isOfSizes = (code: string) => code === 'over_VA' || code === 'below_minimum_V'
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('schedule.findings', found.length) }}</h2>
    <ul v-if="found.length > 0" class="found">
      <DeedRow v-for="({ finding, mend }, i) in found" :key="i">
        <template #mark>
          <StateMark :state="isOfSizes(finding.code) ? 'fault' : 'doubtful'" silent />
        </template>
        {{ t(`schedule.${finding.code}`, readableTimes(finding.params)) }}
        <template #deeds>
          <AppButton v-if="mend && !fixed" @click="emit('mend', mend)">
            {{ t(`schedule.mend.${finding.code}`) }}
          </AppButton>
          <NuxtLink
            v-else-if="isOfSizes(finding.code)"
            class="button"
            :prefetch="false"
            :to="`/p/${String(route.params.id)}/plan/sizes`"
          >
            {{ t('schedule.toSizes') }}
          </NuxtLink>
        </template>
      </DeedRow>
    </ul>
  </section>
</template>
