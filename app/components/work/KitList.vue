<script setup lang="ts">
import { kitFor, type Run } from '../../../core/procedure'
import type { KitTick } from '../../../core/record'
import { lookUp } from '../../../core/site'
import { useWorkWords } from '../../composables/useWorkWords'
import { authorName } from '../../lib/device'
import { useProperty } from '../../stores/property'

/** What the work of a visit needs, ticked out of the van and back into it. */
const props = defineProps<{ visit: string; runs: readonly Run[] }>()
const property = useProperty()
const { t } = useWorkWords(() => property.site!.settings.units)
const kit = computed(() => kitFor(property.site!, props.runs))
const lines = computed(() => [
  ...kit.value.connectors.map(({ kind, count }) => ({
    item: `connectors ${kind}`,
    what: t('kit.count', { count, what: t(`connector.${kind}`) }),
  })),
  ...kit.value.coils.map(({ kind, count }) => {
    const name = kind && lookUp(property.site!.coilKinds, kind)?.name
    return {
      item: kind === null ? 'spare_coil' : `spare_coil ${kind}`,
      what: t('kit.count', { count, what: name ? t('kit.coil', { kind: name }) : t('kit.anyCoil') }),
    }
  }),
  ...kit.value.items
    // Counted ones are listed by their kinds.
    .filter((i) => !(i === 'connectors' && kit.value.connectors.length > 0))
    .filter((i) => !(i === 'spare_coil' && kit.value.coils.length > 0))
    .map((item) => ({ item, what: t(`kitItem.${item}`) })),
])
const states = computed(() => {
  const latest = new Map<string, KitTick>()
  for (const tick of Object.values(property.facts!.kits))
    if (tick.visit === props.visit && tick.at >= (latest.get(tick.item)?.at ?? '')) latest.set(tick.item, tick)
  return latest
})
const stateOf = (item: string) => states.value.get(item)?.state ?? 'none'
const notBack = computed(() => lines.value.filter((l) => stateOf(l.item) === 'out').length)
const tick = (item: string, state: KitTick['state']) =>
  property.record({
    kind: 'kit',
    fact: { visit: props.visit, at: new Date().toISOString(), author: authorName(), item, state },
  })
</script>

<template>
  <details class="folds sheet">
    <summary>
      <h2>{{ t('kit.title') }}</h2>
      <span class="quiet">{{ ` · ${t('kit.missing', notBack)}` }}</span>
    </summary>
    <p class="quiet">{{ t('kit.how') }}</p>
    <ul>
      <li v-for="l in lines" :key="l.item" class="row">
        <span class="what">{{ l.what }}</span>
        <TickBox
          :model-value="stateOf(l.item) !== 'none'"
          :disabled="property.viewed !== null"
          @update:model-value="tick(l.item, $event ? 'out' : 'none')"
        >
          {{ t('kit.out') }}
          <span class="sr-only">{{ l.what }}</span>
        </TickBox>
        <TickBox
          :model-value="stateOf(l.item) === 'back'"
          :disabled="property.viewed !== null || stateOf(l.item) === 'none'"
          @update:model-value="tick(l.item, $event ? 'back' : 'out')"
        >
          {{ t('kit.back') }}
          <span class="sr-only">{{ l.what }}</span>
        </TickBox>
      </li>
    </ul>
  </details>
</template>

<style scoped>
li {
  border-bottom: 1px solid var(--rule);
}
.what {
  flex: 1 1 160px;
}
</style>
