<script setup lang="ts">
import { conversionCommands, convert, layConversion, type ConvertedBox } from '../../../core/path'
import { lengthText } from '../../../core/quantity'
import { byTag, entries, getOrThrow, tagAndName, type CableId, type CoreId, type PathAt } from '../../../core/site'
import { usePathPage } from '../../composables/usePath'
import type { TableColumn } from '../../lib/table'

/** An old cable as a path: which cores make which leg, whether it reaches, and what is joined at each box. */
const props = defineProps<{ path: PathAt }>()
const { site, t, doing, fixed } = usePathPage()
/** Those that begin at this cabinet come first. */
const cables = computed(() => {
  const home = getOrThrow(site.value.controllers, props.path.controller).place
  return entries(site.value.cables)
    .filter(([, c]) => c.kind === 'multicore' && Object.keys(c.cores).length > 1)
    .sort(
      ([, a], [, b]) =>
        Number(b.stops[0]!.place === home) - Number(a.stops[0]!.place === home) || byTag(a.tag ?? '', b.tag ?? ''),
    )
    .map(([value, c]) => ({ value, label: tagAndName(c) }))
})
const picked = ref<CableId | null>(null)
const cable = computed(() => picked.value ?? cables.value[0]?.value ?? null)
/** What stands in the record once it is done; why it cannot be, where it cannot. */
const laid = computed(() =>
  cable.value !== null && props.path.system
    ? layConversion(site.value, props.path.controller, cable.value, props.path.system)
    : null,
)
/** As it will be, what goes on serving as it does left out; by itself where it cannot be written down. */
const found = computed(() => {
  if (cable.value === null || !props.path.system || !laid.value) return null
  return 'site' in laid.value ? laid.value.conversion : convert(site.value, cable.value, props.path.system)
})
const cores = computed(() => {
  const used = laid.value && 'site' in laid.value ? laid.value.conversion.legs.flat().length : 0
  const all = Object.keys(getOrThrow(site.value.cables, cable.value!).cores).length
  return { cores: used, kept: all - used }
})
const write = () =>
  laid.value && 'site' in laid.value && doing({ ok: true, value: conversionCommands(site.value, laid.value) })
const colour = (core: CoreId) => {
  const record = getOrThrow(getOrThrow(site.value.cables, found.value!.cable).cores, core)
  return record.colour?.value ?? core
}
const columns = computed<TableColumn<ConvertedBox>[]>(() => [
  { key: 'box', header: t('twoWire.box') },
  { key: 'at', header: t('twoWire.along'), figure: true },
  { key: 'joins', header: t('twoWire.joins') },
  { key: 'connectors', header: t('twoWire.connectors') },
  { key: 'loop', header: t('twoWire.loopTo'), figure: true },
])
/** Connectors of a joint, those of one kind counted. */
function connectorsOf(joint: ConvertedBox['joints'][number]): string {
  if (joint === null) return t('twoWire.noConnector')
  const counts = new Map<string, number>()
  for (const { connector } of joint.made) counts.set(connector.kind, (counts.get(connector.kind) ?? 0) + 1)
  return [...counts].map(([kind, count]) => `${count} × ${t(`connector.${kind}`)}`).join(' + ')
}
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('twoWire.tabs.convert') }}</h2>
    <p class="quiet">{{ t('twoWire.convertHow') }}</p>
    <p class="caution">{{ t('twoWire.convertCare') }}</p>
    <PickOne
      v-if="cable !== null"
      :model-value="cable"
      :label="t('twoWire.cable')"
      :options="cables"
      @update:model-value="picked = $event"
    />
    <template v-if="found">
      <p v-for="o in found.obstacles" :key="o.kind" class="verdict fault">
        <StateMark state="fault" silent />
        {{ t(`twoWire.obstacles.${o.kind}`) }}
      </p>
      <p v-if="found.obstacles.length === 0 && laid && 'code' in laid" class="verdict fault">
        <StateMark state="fault" silent />
        {{ t(`twoWire.noConversion.${laid.code}`, laid.params) }}
      </p>
      <p v-else-if="found.obstacles.length === 0" class="verdict fits">
        <StateMark state="fits" silent />
        {{ t('twoWire.feasible') }}
      </p>
      <dl>
        <template v-for="(leg, n) in found.legs" :key="n">
          <dt class="quiet">{{ t('twoWire.leg', { n: n + 1 }) }}</dt>
          <dd class="leg">
            <span v-for="core in leg" :key="core" class="core">
              <CoreSwatch :colour="colour(core)" />
              {{ colour(core) }}
            </span>
          </dd>
        </template>
        <template v-if="found.out.length > 0">
          <dt class="quiet">{{ t('twoWire.leftOut') }}</dt>
          <dd class="leg">
            <span v-for="o in found.out" :key="o.core" class="core">
              <CoreSwatch :colour="colour(o.core)" />
              {{ colour(o.core) }}, {{ t(`twoWire.whyOut.${o.why}`) }}
            </span>
          </dd>
        </template>
      </dl>
      <p v-if="found.boxes.length > 0">{{ t('twoWire.loop', { ohm: found.loop_ohm.toFixed(2) }) }}</p>
      <p v-if="found.far_V !== null">
        {{ t('twoWire.farVolts', { count: found.decoders, volt: found.far_V.toFixed(1) }) }}
      </p>
      <div v-if="laid && 'site' in laid && found.obstacles.length === 0" class="row">
        <AppButton v-if="!fixed" look="primary" @click="write">{{ t('twoWire.write') }}</AppButton>
        <span class="quiet">
          {{ t('twoWire.writes', { decoders: laid.decoders, arrestors: laid.arrestors, ...cores }) }}
        </span>
      </div>
      <template v-if="found.boxes.length > 0">
        <h3>{{ t('twoWire.atBox') }}</h3>
        <AppTable :rows="found.boxes" :columns="columns" :row-key="(b) => b.stop" :label="t('twoWire.atBox')">
          <template #box="{ row: b }">{{ getOrThrow(site.places, b.place).tag }}</template>
          <template #at="{ row: b }">{{ lengthText(b.at_m, site.settings.units) }}</template>
          <template #joins="{ row: b }">
            {{ t('twoWire.conductors', { one: b.ends[0], two: b.ends[1] }) }}
          </template>
          <template #connectors="{ row: b }">{{ b.joints.map(connectorsOf).join('; ') }}</template>
          <template #loop="{ row: b }">{{ b.loop_ohm.toFixed(2) }} Ω</template>
        </AppTable>
      </template>
    </template>
  </section>
</template>

<style scoped>
.leg {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  margin-bottom: 8px;
}
.core {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
</style>
