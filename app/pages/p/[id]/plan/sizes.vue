<script setup lang="ts">
import { asIf, type ThreadMargin, type WhatIf } from '../../../../../core/sizing'
import { gaugeText, inUnit } from '../../../../../core/quantity'
import { threadName } from '../../../../../words/sizing'
import { useMargins } from '../../../../composables/useSizing'
import { useSpeaker } from '../../../../composables/useSpeaker'
import { useProperty } from '../../../../stores/property'
import type { TableColumn } from '../../../../lib/table'

const property = useProperty()
const site = computed(() => property.site!)
const units = computed(() => site.value.settings.units)
const { t } = useSpeaker(() => units.value)
const what = ref<WhatIf>({})
const changed = computed(() => Object.keys(what.value).length > 0)
const asked = computed(() => (changed.value ? asIf(site.value, what.value) : site.value))
const { found, reach, behind } = useMargins(
  () => site.value,
  () => what.value,
)

const keyOf = (thread: ThreadMargin) => `${thread.device} ${thread.part}`
const picked = ref<string | null>(null)
const chosen = computed(
  () => found.value?.threads.find((thread) => keyOf(thread) === picked.value) ?? found.value?.threads[0] ?? null,
)
const nameOf = (thread: ThreadMargin) => threadName(asked.value, thread)
const state = (thread: ThreadMargin) => (thread.margin_V < 0 ? 'fault' : thread.margin_V < 1 ? 'doubtful' : 'fits')
const short = computed(() => found.value?.threads.filter((thread) => thread.margin_V < 0).length ?? 0)
const most = computed(() => Math.max(1, ...(found.value?.threads.map((thread) => Math.abs(thread.margin_V)) ?? [])))
const print = () => window.print()
const columns = computed<TableColumn<ThreadMargin>[]>(() => [
  { key: 'thread', header: t('sizes.thread'), sort: nameOf },
  { key: 'atCoil', header: t('sizes.atCoil'), figure: true, sort: (thread) => thread.volt_V },
  { key: 'needed', header: t('sizes.needed'), figure: true },
  { key: 'margin', header: t('sizes.spare'), figure: true, sort: (thread) => thread.margin_V },
])
const reachColumns = computed<TableColumn<NonNullable<typeof reach.value>['rows'][number]>[]>(() => [
  { key: 'size', header: t('plan.size'), figure: true },
  ...(reach.value?.lost_V ?? []).map((_, n) => ({
    key: `reach-${n}`,
    header: `${t('sizes.valves', n + 1)}, ${units.value.length}`,
    figure: true,
  })),
])
</script>

<template>
  <div class="stack">
    <div class="row title no-print">
      <h1>{{ t('sizes.title') }}</h1>
      <span class="quiet" aria-live="polite">{{ behind ? t('sizes.working') : '' }}</span>
    </div>
    <p v-if="found && found.threads.length === 0" class="sheet row no-print">
      {{ t('sizing.nothing_wired') }}
      <NuxtLink class="button primary" :to="`/p/${$route.params.id}/plan`">{{ t('plan.begin') }}</NuxtLink>
    </p>
    <template v-if="found && chosen">
      <p class="verdict no-print" :class="state(found.threads[0]!)">
        <StateMark :state="state(found.threads[0]!)" silent />
        {{ ' ' }}
        <strong>{{ short > 0 ? t('sizes.tooLittle', short) : t('sizes.allHave') }}</strong>
        {{ ' ' }}
        <span>
          {{
            t(found.threads[0]!.margin_V < 0 ? 'sizes.weakestLacks' : 'sizes.weakest', {
              name: nameOf(found.threads[0]!),
              volt: found.threads[0]!.volt_V.toFixed(1),
              margin: Math.abs(found.threads[0]!.margin_V).toFixed(1),
            })
          }}
        </span>
        {{ ' ' }}
        <span v-if="changed" class="if">{{ t('whatIf.shown') }}</span>
      </p>
      <p v-if="found.unwired.length > 0" class="quiet no-print">
        {{ t('sizes.unwired', { names: found.unwired.map((s) => asked.stations[s]?.name ?? s).join(', ') }) }}
      </p>
      <div class="columns no-print">
        <section class="sheet">
          <DropProfile
            :threads="found.threads"
            :chosen="chosen"
            :unit="units.length"
            :name-of="nameOf"
            @choose="picked = keyOf($event)"
          />
        </section>
        <WhatIfPanel v-model="what" :site="site" :units="units" />
        <section class="sheet scroll">
          <h2>{{ t('sizes.threads') }}</h2>
          <AppTable
            :rows="found.threads"
            :columns="columns"
            :row-key="keyOf"
            :row-class="(thread) => (thread === chosen ? 'picked' : '')"
            :label="t('sizes.threads')"
          >
            <template #thread="{ row: thread }">
              <AppButton look="bare" class="pick" :aria-pressed="thread === chosen" @click="picked = keyOf(thread)">
                <StateMark :state="state(thread)" silent />
                {{ nameOf(thread) }}
                <span v-if="thread.part !== 'starting'" class="quiet">· {{ t(`sizes.part.${thread.part}`) }}</span>
              </AppButton>
            </template>
            <template #atCoil="{ row: thread }">{{ thread.volt_V.toFixed(2) }} V</template>
            <template #needed="{ row: thread }">{{ thread.needed_V.toFixed(2) }} V</template>
            <template #margin="{ row: thread }">
              <span class="meter">
                <i :class="state(thread)" :style="{ width: `${(Math.abs(thread.margin_V) / most) * 100}%` }" />
              </span>
              {{ thread.margin_V < 0 ? '−' : '' }}{{ Math.abs(thread.margin_V).toFixed(2) }} V
            </template>
          </AppTable>
        </section>
        <section class="sheet">
          <ThreadLosses :thread="chosen" :site="asked" :name="nameOf(chosen)" :units="units" />
        </section>
        <NewWire :site="site" :asked="asked" :changed="changed" :units="units" :fixed="property.viewed !== null" />
        <SizingSettings v-if="!property.viewed" :site="site" />
      </div>
    </template>
    <p v-else-if="!found" class="quiet no-print">{{ t('sizes.working') }}</p>
    <section v-if="reach" class="sheet stack">
      <div class="row title">
        <h2>{{ t('sizes.reach') }}</h2>
        <AppButton class="no-print" @click="print">{{ t('sizes.print') }}</AppButton>
      </div>
      <p class="quiet">
        {{ site.about.name }}.
        {{
          t('sizes.reachHow', {
            station: reach.station_A.toFixed(2),
            masters: reach.masters_A.toFixed(2),
            open: reach.open_V.toFixed(1),
            hottest: Math.round(units.temperature === 'F' ? reach.hottest_C * 1.8 + 32 : reach.hottest_C),
            unit: units.temperature,
          })
        }}
      </p>
      <AppTable
        :rows="reach.rows"
        :columns="reachColumns"
        :row-key="(r) => gaugeText(r.stocked.gauge)"
        :label="t('sizes.reach')"
      >
        <template #size="{ row: r }">{{ gaugeText(r.stocked.gauge) }}</template>
        <template v-for="(_, n) in reach.lost_V" :key="n" #[`reach-${n}`]="{ row: r }">
          {{ Math.floor(inUnit(r.reach_m[n]!, units.length)) }}
        </template>
      </AppTable>
      <p class="quiet small">{{ t('sizes.reachFormula') }} {{ t('record.code') }}</p>
    </section>
  </div>
</template>

<style scoped>
.title {
  justify-content: space-between;
}
.verdict {
  font-size: 17px;
}
.verdict span {
  color: var(--ink);
}
.verdict .if {
  color: var(--copper);
  font-weight: 600;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(320px, 2fr);
  gap: 16px;
  align-items: start;
}
.scroll {
  max-height: 760px;
  overflow: auto;
}
.pick {
  border: 0;
  background: none;
  padding: 4px 0;
  min-height: 32px;
  cursor: pointer;
  text-align: left;
}
.table .figure {
  white-space: nowrap;
}
.meter {
  display: inline-block;
  width: 72px;
  margin-right: 8px;
  height: 8px;
  vertical-align: middle;
  background: var(--key-bed);
  border-radius: 4px;
  overflow: hidden;
}
.meter i {
  display: block;
  height: 100%;
  background: currentcolor;
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
  .small {
    font-size: 15px;
  }
  .pick {
    min-height: 48px;
  }
  .meter {
    display: none;
  }
}
</style>
