<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { sizeCommands } from '../../../core/plan'
import { gaugeText } from '../../../core/quantity'
import { isPinned, stockOf } from '../../../core/sizing'
import { entries, type Site } from '../../../core/site'
import { useCableName } from '../../composables/useCableName'
import { usePlan } from '../../composables/usePlan'
import { useSpeaker } from '../../composables/useSpeaker'

/** Every cable's size, and whether it is settled or the sizing may choose it. */
const props = defineProps<{ site: Site; fixed: boolean }>()
const { t } = useI18n()
const { speaker } = useSpeaker(() => props.site.settings.units)
const { keep, sentences } = usePlan(() => speaker.value)
const nameOf = useCableName(() => props.site)
const cables = computed(() =>
  entries(props.site.cables).map(([id, cable]) => {
    const known = cable.gauge ?? Object.values(cable.cores)[0]?.gauge ?? null
    return {
      id,
      name: nameOf(id),
      size: known ? gaugeText(known.value) : '',
      settled: isPinned(known),
      byCore: cable.gauge === null && known !== null,
    }
  }),
)
const stock = computed(() => stockOf(props.site).map((s) => gaugeText(s.gauge)))
const sizesFor = (size: string) => (size === '' || stock.value.includes(size) ? stock.value : [size, ...stock.value])
const target = (event: Event) => event.target as HTMLInputElement
</script>

<template>
  <details>
    <summary>
      {{ t('sizes.settledHow', { settled: cables.filter((c) => c.settled).length, count: cables.length }) }}
    </summary>
    <ul v-if="sentences.length > 0" class="fault" role="alert">
      <li v-for="s in sentences" :key="s">{{ s }}</li>
    </ul>
    <table class="table">
      <thead>
        <tr>
          <th scope="col">{{ t('plan.cell.cable') }}</th>
          <th scope="col">{{ t('plan.size') }}</th>
          <th scope="col">{{ t('sizes.settled') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="c in cables" :key="c.id">
          <td>{{ c.name }}</td>
          <td>
            <select
              class="input slim"
              :aria-label="`${t('plan.size')}, ${c.name}`"
              :value="c.size"
              :disabled="fixed || c.byCore"
              @change="keep(sizeCommands(site, c.id, target($event).value, true))"
            >
              <option value="">{{ t('plan.unknown') }}</option>
              <option v-for="s in sizesFor(c.size)" :key="s" :value="s">{{ s }}</option>
            </select>
          </td>
          <td>
            <input
              type="checkbox"
              :checked="c.settled"
              :disabled="fixed || c.size === '' || c.byCore"
              :aria-label="`${t('sizes.settled')}, ${c.name}`"
              @change="keep(sizeCommands(site, c.id, c.size, target($event).checked))"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </details>
</template>

<style scoped>
.slim {
  min-height: 34px;
  padding: 2px 8px;
  width: auto;
}
summary {
  cursor: pointer;
  min-height: 32px;
}
@media (max-width: 759px) {
  .slim,
  summary {
    min-height: 48px;
  }
}
</style>
