<script setup lang="ts">
import type { ProposalCode } from '../../../core/schedule'
import { useSchedulePage } from '../../composables/useSchedule'
import type { ProposalSeen } from '../../workers/schedule'

/** Ways in which the schedule could be other: looked at beside what is now, and taken over where wanted. */
defineProps<{ proposals: readonly ProposalSeen[]; fixed: boolean }>()
const emit = defineEmits<{ take: [proposal: ProposalSeen] }>()
const looked = defineModel<ProposalCode | null>({ required: true })
const { t } = useSchedulePage()
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('schedule.proposals') }}</h2>
    <p class="quiet">{{ proposals.length > 0 ? t('schedule.proposalsHow') : t('schedule.noProposals') }}</p>
    <ul v-if="proposals.length > 0">
      <DeedRow v-for="p in proposals" :key="p.code">
        <strong>{{ t(`schedule.propose.${p.code}`) }}</strong>
        <span class="quiet">{{ t('schedule.leavesFindings', p.seen.found.length) }}</span>
        <template #deeds>
          <AppButton :aria-pressed="looked === p.code" @click="looked = looked === p.code ? null : p.code">
            {{ t(looked === p.code ? 'schedule.lookAway' : 'schedule.look') }}
          </AppButton>
          <AppButton v-if="!fixed" @click="emit('take', p)">{{ t('schedule.take') }}</AppButton>
        </template>
      </DeedRow>
    </ul>
  </section>
</template>
