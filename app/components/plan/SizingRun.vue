<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { moneyText } from '../../../words/sizing'
import type { SizingRun } from '../../composables/useSizing'

/** Begins and ends the choice of sizes, and shows how far it has come. */
defineProps<{ running: SizingRun | null }>()
const emit = defineEmits<{ start: []; stop: [] }>()
const { t } = useI18n()
</script>

<template>
  <div class="stack">
    <p class="row">
      <AppButton v-if="!running" look="primary" @click="emit('start')">
        {{ t('sizes.choose') }}
      </AppButton>
      <AppButton v-else @click="emit('stop')">{{ t('sizes.stop') }}</AppButton>
      <span v-if="running" class="quiet" role="status">
        {{
          running.best_cents === null
            ? t('sizes.searching')
            : t('sizes.bestSoFar', {
                best: moneyText(running.best_cents),
                bound: moneyText(Math.max(0, running.bound_cents ?? 0)),
              })
        }}
      </span>
    </p>
    <ProgressLine
      v-if="running"
      :label="t('sizes.searching')"
      :percent="running.best_cents ? Math.max(0, (100 * (running.bound_cents ?? 0)) / running.best_cents) : null"
    />
  </div>
</template>
