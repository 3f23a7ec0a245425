<script setup lang="ts">
import { asIfPath, type PathMargin } from '../../../core/path'
import { lengthText } from '../../../core/quantity'
import { sizingCommands, type WhatIf } from '../../../core/sizing'
import { getOrThrow, lookUp, type DeviceId, type PathAt } from '../../../core/site'
import { moneyText } from '../../../words/sizing'
import { usePathMargins, usePathPage } from '../../composables/usePath'
import { usePathSizing } from '../../composables/useSizing'
import type { TableColumn } from '../../lib/table'

/** The wire of a path: what everything on it has at its worst, what would be if, and the cheapest sizes that hold. */
const props = defineProps<{ path: PathAt }>()
const { site, t, keep, sentences, fixed } = usePathPage()
const what = ref<WhatIf>({})
const changed = computed(() => Object.keys(what.value).length > 0)
const asked = computed(() => (changed.value ? asIfPath(site.value, props.path.controller, what.value) : site.value))
const { found: margins, behind } = usePathMargins(
  () => asked.value,
  () => props.path.controller,
)
const { running, answer, start, stop } = usePathSizing(() => props.path.controller)
watch(asked, () => {
  answer.value = null
})
const anew = ref(false)
const found = computed(() => (answer.value?.kind === 'sized' ? answer.value : null))
const writeIn = async () => {
  if (found.value && (await keep({ ok: true, value: sizingCommands(site.value, found.value) }))) answer.value = null
}
const tagOf = (id: DeviceId) => lookUp(asked.value.devices, id)?.tag ?? id
const boxOf = (id: DeviceId) => getOrThrow(asked.value.places, getOrThrow(asked.value.devices, id).place).tag
const named = ({ device, decoder }: PathMargin) =>
  device === decoder ? tagOf(decoder) : t('twoWire.coilBehind', { coil: tagOf(device), decoder: tagOf(decoder) })
const state = (m: PathMargin) => (m.margin_V < 0 ? 'fault' : m.margin_V < 1 ? 'doubtful' : 'fits')
const weakest = computed(() => margins.value?.[0] ?? null)
const short = computed(() => margins.value?.filter((m) => m.margin_V < 0).length ?? 0)
const runs = (m: PathMargin) =>
  m.on
    .map((o) => o.output.address ?? tagOf(o.output.decoder))
    .filter((n, i, all) => all.indexOf(n) === i)
    .join(' + ')
const MOST_ROWS = 12
const columns = computed<TableColumn<PathMargin>[]>(() => [
  { key: 'what', header: t('twoWire.atWorst') },
  { key: 'box', header: t('twoWire.box') },
  { key: 'volts', header: t('twoWire.volts'), figure: true, sort: (m) => m.volt_V },
  { key: 'spare', header: t('sizes.spare'), figure: true, sort: (m) => m.margin_V },
  { key: 'runs', header: t('twoWire.running'), figure: true },
])
const said = computed(() => {
  const a = answer.value
  if (a === null) return ''
  if (a.kind === 'sized') {
    const proven = a.bound_cents === null ? 'looped' : 'proven'
    return t(`twoWire.sized.${proven}`, { cost: moneyText(a.cost_cents) })
  }
  if (a.kind !== 'out_of_reach') return t(`sizing.${a.kind}`)
  const { weakest: w } = a
  return t('twoWire.sized.outOfReach', { what: named(w), volt: (-w.margin_V).toFixed(2), count: a.failing })
})
const metres = computed(() =>
  found.value
    ? lengthText(
        found.value.groups.reduce((s, g) => s + g.length_m, 0),
        site.value.settings.units,
      )
    : '',
)
</script>

<template>
  <div class="stack">
    <p v-if="weakest" class="verdict" :class="state(weakest)" aria-live="polite">
      <StateMark :state="state(weakest)" silent />
      {{ ' ' }}
      <strong>{{ short > 0 ? t('twoWire.sized.short', short) : t('twoWire.sized.allHave') }}</strong>
      {{ ' ' }}
      {{
        t('twoWire.sized.weakest', {
          what: named(weakest),
          volt: weakest.volt_V.toFixed(2),
          minimum: weakest.minimum_V,
          runs: runs(weakest),
        })
      }}
      <span v-if="changed" class="if">{{ t('whatIf.shown') }}</span>
    </p>
    <p v-else-if="behind" class="quiet" role="status">{{ t('twoWire.working') }}</p>
    <p v-else class="sheet">{{ t('twoWire.sized.cannot') }}</p>
    <div v-if="weakest && margins" class="columns">
      <section class="sheet stack">
        <h2>{{ t('twoWire.sized.worst') }}</h2>
        <AppTable
          :rows="margins.slice(0, MOST_ROWS)"
          :columns="columns"
          :row-key="(m) => m.device"
          :label="t('twoWire.sized.worst')"
        >
          <template #what="{ row: m }">
            <StateMark :state="state(m)" silent />
            {{ named(m) }}
          </template>
          <template #box="{ row: m }">{{ boxOf(m.device) }}</template>
          <template #volts="{ row: m }">{{ m.volt_V.toFixed(2) }} V</template>
          <template #spare="{ row: m }">
            {{ m.margin_V < 0 ? '−' : '' }}{{ Math.abs(m.margin_V).toFixed(2) }} V
          </template>
          <template #runs="{ row: m }">{{ runs(m) }}</template>
        </AppTable>
        <p class="quiet">{{ t('twoWire.sized.how', { count: asked.settings.sizing.together }) }}</p>
      </section>
      <WhatIfPanel v-model="what" :site="site" :units="site.settings.units" path />
      <section class="sheet stack">
        <h2>{{ t('sizes.newWire') }}</h2>
        <TickBox v-model="anew">{{ t('sizes.anew') }}</TickBox>
        <SizingRun :running="running" @start="start(asked, anew)" @stop="stop" />
        <ul v-if="sentences.length > 0" class="fault" role="alert">
          <li v-for="s in sentences" :key="s">{{ s }}</li>
        </ul>
        <div v-if="answer" class="stack" role="status">
          <p :class="{ fault: answer.kind === 'out_of_reach' }">
            <strong>{{ said }}</strong>
            {{ ' ' }}
            <span v-if="found">{{ t('twoWire.sized.metres', { metres }) }}</span>
          </p>
          <SizesFound v-if="found" :site="site" :found="found" :changed="changed" :fixed="fixed" @write="writeIn" />
        </div>
        <p class="quiet">{{ t('twoWire.sized.proof') }}</p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(300px, 2fr);
  gap: 16px;
  align-items: start;
}
.if {
  color: var(--copper);
  font-weight: 600;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
