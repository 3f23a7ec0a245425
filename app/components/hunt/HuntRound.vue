<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { HuntReport, RoundOrder } from '../../../core/hunt'
import { getOrThrow, type Site } from '../../../core/site'
import type { Speaker } from '../../../words'
import { sayTest } from '../../../words/hunt'
import { sayPart } from '../../../words/part'
import { optionsOf } from '../../lib/options'

/** One walk for all that is wrong: box after box, what is to be done there and for which of the things. */
const props = defineProps<{ report: HuntReport; site: Site; speaker: Speaker; writable: boolean }>()
const emit = defineEmits<{ measure: [trouble: number] }>()
const { t } = useI18n()
const order = ref<RoundOrder>('nearest')
const stops = computed(() => props.report.round[order.value])
const whole_min = computed(() => stops.value.reduce((sum, s) => sum + s.minutes, 0))
</script>

<template>
  <section class="sheet stack" :aria-label="t('diagnose.round')">
    <div class="row head">
      <h2>{{ t('diagnose.round') }}</h2>
      <span class="quiet">{{ t('diagnose.roundMinutes', { min: whole_min.toFixed(0) }) }}</span>
    </div>
    <PickRadio
      v-model="order"
      :label="t('diagnose.roundOrder')"
      :options="optionsOf(['nearest', 'worst'], (o) => t(`diagnose.order.${o}`))"
    />
    <ol class="stops">
      <li v-for="stop in stops" :key="stop.place">
        <span class="figure tag">{{ getOrThrow(site.places, stop.place).tag }}</span>
        <ul>
          <li v-for="errand in stop.errands" :key="errand.trouble" class="row">
            <span>
              <span class="figure number">{{ errand.trouble + 1 }}</span>
              {{
                errand.test === null
                  ? t('diagnose.mend', {
                      what: sayPart(report.troubles[errand.trouble]!.parts[0]!.where, site, speaker),
                    })
                  : sayTest(errand.test, site, speaker)
              }}
            </span>
            <AppButton
              v-if="writable && errand.test !== null"
              look="plain"
              :aria-label="`${t('diagnose.askThis')}: ${sayTest(errand.test, site, speaker)}`"
              @click="emit('measure', errand.trouble)"
            >
              {{ t('diagnose.askThis') }}
            </AppButton>
          </li>
        </ul>
      </li>
    </ol>
  </section>
</template>

<style scoped>
h2 {
  font-size: 17px;
}
.head {
  justify-content: space-between;
}
.stops,
.stops ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
.stops > li {
  display: grid;
  grid-template-columns: 48px minmax(0, 1fr);
  gap: 8px;
  align-items: start;
  border-top: 1px solid var(--rule);
  padding: 6px 0;
}
.stops .row {
  justify-content: space-between;
  flex-wrap: nowrap;
  min-height: 40px;
}
.stops .button {
  flex: none;
  padding: 0 8px;
}
.tag {
  font-weight: 700;
  padding-top: 10px;
}
.number {
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  padding: 0 6px;
  margin-right: 4px;
  font-weight: 700;
}
</style>
