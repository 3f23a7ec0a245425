<script setup lang="ts">
import { materialSheets, writeMaterialCsv } from '../../../../../core/formats'
import { gaugeText, lengthText, type Gauge } from '../../../../../core/quantity'
import { getOrThrow, type Site } from '../../../../../core/site'
import {
  cableLengths,
  conductorCounts,
  connectorCounts,
  deviceCounts,
  MATERIAL_PARTS,
  materialPart,
  spoolPlans,
  type ConnectorCount,
  type MaterialPart,
  type Ware,
} from '../../../../../core/takeoff'
import { useCableName } from '../../../../composables/useCableName'
import { unbroken, useSpeaker } from '../../../../composables/useSpeaker'
import { optionsOf } from '../../../../lib/options'
import { saveText } from '../../../../lib/save'
import { saveWorkbook } from '../../../../lib/spreadsheet'
import { useProperty } from '../../../../stores/property'
import type { TableColumn } from '../../../../lib/table'

const property = useProperty()
const site = computed(() => property.site!)
const units = computed(() => site.value.settings.units)
const { t } = useSpeaker(() => units.value)
/** Terminals that were ever read: what hangs on them is there. */
const read = computed(() =>
  Object.values(property.facts!.readings).flatMap(({ test }) =>
    Object.values(test).flatMap((at) => (typeof at === 'object' && at.kind === 'terminal' ? [at] : [])),
  ),
)
const partOf = (part: MaterialPart) => materialPart(site.value, part, read.value)
const isAnything = (of: Site) => [of.cables, of.devices, of.splices].some((c) => Object.keys(c).length > 0)
/** What is looked at: what is to buy, where anything is. */
const part = ref<MaterialPart>(isAnything(partOf('to_buy')) ? 'to_buy' : 'all')
const counted = computed(() => partOf(part.value))
const cables = computed(() => cableLengths(counted.value))
const spools = computed(() => (part.value === 'there' ? [] : spoolPlans(counted.value)))
const longest_m = computed(() => Math.max(...spools.value.flatMap((p) => p.spools.map((s) => s.length_m))))
const [connectors, conductors, devices] = [
  computed(() => connectorCounts(counted.value)),
  computed(() => conductorCounts(counted.value)),
  computed(() => deviceCounts(counted.value)),
]
const long = (m: number) => unbroken(lengthText(m, units.value))
const tag = (place: string) => getOrThrow(site.value.places, place).tag
const nameOf = useCableName(() => site.value)
const size = (gauge: Gauge | null) => (gauge ? gaugeText(gauge) : t('plan.unknown'))
const wareText = (w: Ware) =>
  [t(`plan.kinds.${w.kind}`), w.kind === 'single' ? null : t('material.coreCount', w.cores), size(w.gauge), w.colour]
    .filter((s) => s !== null)
    .join(', ')

const fileName = computed(() => `${site.value.about.name} material, ${t(`material.parts.${part.value}`)}`)
const saveCsv = () => saveText(`${fileName.value}.csv`, writeMaterialCsv(counted.value), 'text/csv')
const saving = ref(false)
async function saveXlsx(): Promise<void> {
  saving.value = true
  await saveWorkbook(fileName.value, materialSheets(counted.value))
  saving.value = false
}
const cableColumns = computed<TableColumn<(typeof cables.value)[number]>[]>(() => [
  { key: 'cable', header: t('plan.cell.cable'), figure: true, sort: (c) => nameOf(c.cable) },
  { key: 'way', header: t('plan.way'), figure: true },
  { key: 'ware', header: t('material.ware'), sort: (c) => wareText(c.ware) },
  { key: 'route', header: t('material.route'), figure: true, sort: (c) => c.route_m },
  { key: 'expansion', header: t('material.expansionShort'), figure: true },
  { key: 'slack', header: t('material.slackShort'), figure: true },
  {
    key: 'order',
    header: t(part.value === 'there' ? 'material.whole' : 'material.order'),
    figure: true,
    sort: (c) => c.order_m,
  },
])
const connectorColumns = computed<TableColumn<(typeof connectors.value)[number]>[]>(() => [
  { key: 'connector', header: t('material.connector') },
  { key: 'count', header: t('material.count'), figure: true, sort: (c) => c.count },
  ...(part.value === 'there'
    ? []
    : [{ key: 'take', header: t('material.take'), figure: true, sort: (c: ConnectorCount) => c.withReserve }]),
])
</script>

<template>
  <div class="stack">
    <div class="row title">
      <h1>{{ t('material.title') }}</h1>
      <span class="row no-print">
        <AppButton @click="saveCsv">{{ t('material.csv') }}</AppButton>
        <AppButton :disabled="saving" @click="saveXlsx">{{ t('material.xlsx') }}</AppButton>
      </span>
    </div>
    <p v-if="Object.keys(site.cables).length === 0" class="sheet row">
      {{ t('material.none') }}
      <NuxtLink class="button primary" :to="`/p/${$route.params.id}/plan`">{{ t('plan.begin') }}</NuxtLink>
    </p>
    <div v-else class="columns">
      <div class="stack">
        <div class="stack tight no-print">
          <PickBar
            v-model="part"
            :label="t('material.part')"
            :options="optionsOf(MATERIAL_PARTS, (p) => t(`material.parts.${p}`))"
          />
          <p class="quiet small">{{ t(`material.partHow.${part}`) }}</p>
        </div>
        <p v-if="!isAnything(counted)" class="sheet">{{ t('material.nothing') }}</p>
        <section v-if="spools.length > 0" class="sheet stack">
          <h2>{{ t('material.spools') }}</h2>
          <p class="quiet small">{{ t('material.spoolsHow') }}</p>
          <article v-for="p in spools" :key="p.ware.key" class="ware">
            <h3>{{ wareText(p.ware) }}</h3>
            <p class="quiet">
              {{ t('material.bought', { needed: long(p.needed_m), bought: long(p.bought_m) }) }}
              {{
                p.bound_m >= p.bought_m - 0.05 ? t('material.optimum') : t('material.bound', { bound: long(p.bound_m) })
              }}
              <template v-if="p.joints > 0">
                <strong class="doubtful">{{ t('material.joints', p.joints) }}</strong>
              </template>
            </p>
            <p v-for="pull in p.tooLong" :key="`${pull.cable} ${pull.from}`" class="fault">
              {{
                t('material.tooLong', {
                  cable: nameOf(pull.cable),
                  from: tag(pull.from),
                  to: tag(pull.to),
                  length: long(pull.length_m),
                })
              }}
            </p>
            <ul>
              <li v-for="(s, i) in p.spools" :key="i" class="spool">
                <span class="figure of">{{ long(s.length_m) }}</span>
                <span
                  class="reel"
                  :style="{
                    width: `${(s.length_m / longest_m) * 100}%`,
                  }"
                >
                  <span
                    v-for="(pull, k) in s.pulls"
                    :key="k"
                    class="pull"
                    :style="{ width: `${(pull.length_m / s.length_m) * 100}%` }"
                    :title="`${nameOf(pull.cable)}, ${tag(pull.from)}–${tag(pull.to)}, ${long(pull.length_m)}`"
                  >
                    {{ nameOf(pull.cable) }}
                  </span>
                </span>
                <span class="quiet cuts">
                  {{
                    s.pulls
                      .map((pull) => `${nameOf(pull.cable)} ${tag(pull.from)}–${tag(pull.to)} ${long(pull.length_m)}`)
                      .join(' · ')
                  }}
                  · {{ t('material.left', { left: long(s.left_m) }) }}
                </span>
              </li>
            </ul>
          </article>
        </section>
        <section v-if="cables.length > 0" class="sheet">
          <h2>{{ t('material.cables') }}</h2>
          <AppTable :rows="cables" :columns="cableColumns" :row-key="(c) => c.cable" :label="t('material.cables')">
            <template #cable="{ row: c }">{{ nameOf(c.cable) }}</template>
            <template #way="{ row: c }">{{ tag(c.from) }}–{{ tag(c.to) }}</template>
            <template #ware="{ row: c }">{{ wareText(c.ware) }}</template>
            <template #route="{ row: c }">
              {{ long(c.route_m) }}
              <span v-if="c.unknown" class="doubtful">{{ t('material.atMost') }}</span>
            </template>
            <template #expansion="{ row: c }">{{ long(c.expansion_m) }}</template>
            <template #slack="{ row: c }">{{ long(c.slack_m) }}</template>
            <template #order="{ row: c }">
              <strong>{{ long(c.order_m) }}</strong>
            </template>
          </AppTable>
        </section>
        <section v-if="connectors.length > 0" class="sheet stack">
          <h2>{{ t('material.connectors') }}</h2>
          <AppTable
            :rows="connectors"
            :columns="connectorColumns"
            :row-key="(c) => `${c.connector} ${c.conductors}`"
            :label="t('material.connectors')"
          >
            <template #connector="{ row: c }">
              {{ t('material.kind', { kind: t(`material.kinds.${c.connector}`), count: c.conductors }, c.conductors) }}
            </template>
            <template #count="{ row: c }">{{ c.count }}</template>
            <template #take="{ row: c }">
              <strong>{{ c.withReserve }}</strong>
            </template>
          </AppTable>
          <p class="quiet small">{{ t('material.connectorsHow') }}</p>
        </section>
        <section v-if="conductors.length + devices.length > 0" class="sheet stack">
          <h2>{{ t('material.conductors') }}</h2>
          <FigureList v-if="conductors.length > 0" :rows="conductors" :row-key="(c) => size(c.gauge)">
            <template #words="{ row: c }">
              <span class="figure">{{ size(c.gauge) }}</span>
            </template>
            <template #figure="{ row: c }">{{ long(c.length_m) }}</template>
          </FigureList>
          <FigureList :rows="devices" :row-key="(d) => `${d.kind} ${d.name}`">
            <template #words="{ row: d }">
              {{ t(`material.device.${d.kind}`) }}
              <span v-if="d.name" class="quiet">· {{ d.name }}</span>
            </template>
            <template #figure="{ row: d }">{{ d.count }}</template>
          </FigureList>
        </section>
      </div>
      <div class="stack">
        <MaterialSettings v-if="!property.viewed" :site="site" class="no-print" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.title {
  justify-content: space-between;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(300px, 1fr);
  gap: 16px;
  align-items: start;
}
.scroll {
  overflow-x: auto;
}
.ware {
  display: grid;
  gap: 4px;
}
.ware + .ware {
  border-top: 1px solid var(--rule);
  padding-top: 12px;
}
.spool {
  display: grid;
  grid-template-columns: 64px 1fr;
  column-gap: 8px;
  align-items: center;
  padding: 4px 0;
}
.reel {
  display: flex;
  height: 26px;
  border: 1px solid var(--quiet);
  border-radius: 4px;
  overflow: hidden;
  background: repeating-linear-gradient(135deg, transparent 0 5px, var(--rule) 5px 6px);
}
.pull {
  background: var(--copper-soft);
  border-right: 1px solid var(--copper);
  font-size: 12px;
  padding: 3px 5px;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  min-width: 2px;
}
.cuts {
  grid-column: 2;
  font-size: 13px;
}
.small {
  font-size: 13px;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 759px) {
  .small,
  .cuts {
    font-size: 15px;
  }
}
</style>
