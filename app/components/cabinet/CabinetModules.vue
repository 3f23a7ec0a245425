<script setup lang="ts">
import {
  getOrThrow,
  setField,
  type Bay,
  type Command,
  type ControllerId,
  type FieldOf,
  type Site,
  type ValueOf,
} from '../../../core/site'
import { modulesOf, terminalsToCount } from '../../../core/cabinet'
import { refusal, refused, type Outcome } from '../../../core/refusal'
import { useWiringWords } from '../../composables/useWiringWords'
import { valueOf } from '../../lib/fields'
import { figureIn } from '../../lib/figures'
import { optionsOf } from '../../lib/options'

/** What the controller is made of: base and bays in order, its clamps, its transformer, where it hangs. */
const props = defineProps<{ site: Site; controller: ControllerId; fixed: boolean }>()
const emit = defineEmits<{ keep: [outcome: Outcome<Command[]>] }>()
const { t } = useWiringWords(() => props.site.settings.units)
const record = computed(() => getOrThrow(props.site.controllers, props.controller))
const count = computed(() => modulesOf(props.site, props.controller))
const set = <F extends FieldOf<'controllers'>>(field: F, value: ValueOf<'controllers', F>) =>
  emit('keep', { ok: true, value: [setField('controllers', props.controller, field, value)] })
/** Stations of a module as typed, or a refusal that names its limits. */
function stationsOf(index: number, event: Event): void {
  const stations = figureIn(valueOf(event), 1, MOST_IN_BAY)
  if (stations === null || !Number.isInteger(stations))
    emit('keep', refused(refusal('not_within', [t('door.stations')], { low: 1, high: MOST_IN_BAY })))
  else setBay(index, { ...record.value.bays[index]!.module!, stations })
}
const MOST_IN_BAY = 400
/** One figure of the transformer, the other as it was; nothing is kept of one of which nothing is known. */
function transformer(of: 'rating_VA' | 'open_V', value: number | null): void {
  const { rating_VA = null, open_V = null } = record.value.transformer ?? {}
  const now = of === 'rating_VA' ? { rating_VA: value, open_V } : { rating_VA, open_V: value }
  set('transformer', now.rating_VA === null && now.open_V === null ? null : now)
}
const setBay = (index: number, module: Bay['module']) =>
  set(
    'bays',
    record.value.bays.map((b, i) => (i === index ? { ...b, module } : b)),
  )
const kindOf = (index: number, kind: string) =>
  setBay(
    index,
    kind === 'empty'
      ? null
      : {
          kind: kind as NonNullable<Bay['module']>['kind'],
          stations: record.value.bays[index]!.module?.stations ?? 4,
          label: record.value.bays[index]!.module?.label ?? '',
        },
  )
const yesNo = (value: boolean | null) => (value === null ? '' : value ? 'yes' : 'no')
const told = (answer: string) => (answer === '' ? null : answer === 'yes')
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('door.modules') }}</h2>
    <div class="fields">
      <PickOne
        id="c-kind"
        :model-value="record.kind"
        :disabled="fixed"
        :label="t('door.kind')"
        :options="optionsOf(['conventional', 'hybrid', 'two_wire'], (k) => t(`door.kinds.${k}`))"
        @update:model-value="set('kind', $event)"
      />
      <OpenFigure
        id="c-fixed"
        :label="t('door.fixed')"
        :value="record.fixedStations"
        :low="0"
        :high="400"
        whole
        :none="t('door.unsaid')"
        :fixed="fixed"
        @store="set('fixedStations', $event)"
      />
      <OpenFigure
        id="c-most"
        :label="t('door.most')"
        :value="record.mostStations"
        :low="1"
        :high="9999"
        whole
        :none="t('door.unsaid')"
        :fixed="fixed"
        @store="set('mostStations', $event)"
      />
      <PickOne
        id="c-holds"
        class="few"
        :model-value="record.commonHolds"
        :disabled="fixed"
        :label="t('door.commonHolds')"
        :options="[
          { value: 1, label: '1' },
          { value: 2, label: '2' },
        ]"
        @update:model-value="set('commonHolds', $event)"
      />
      <OpenFigure
        id="c-va"
        :label="t('door.rating')"
        :value="record.transformer?.rating_VA ?? null"
        :low="1"
        :high="2000"
        :none="t('door.unsaid')"
        :fixed="fixed"
        @store="transformer('rating_VA', $event)"
      />
      <OpenFigure
        id="c-open"
        :label="t('door.openVolts')"
        :value="record.transformer?.open_V ?? null"
        :low="24.1"
        :high="60"
        :none="String(site.settings.V_open_V)"
        :fixed="fixed"
        @store="transformer('open_V', $event)"
      />
      <PickOne
        id="c-indoor"
        :model-value="yesNo(record.indoor)"
        :disabled="fixed"
        :label="t('door.indoor')"
        :options="[
          { value: '', label: t('door.unsaid') },
          { value: 'yes', label: t('door.indoors') },
          { value: 'no', label: t('door.outdoors') },
        ]"
        @update:model-value="set('indoor', told($event))"
      />
      <PickOne
        id="c-lock"
        :model-value="yesNo(record.lockable)"
        :disabled="fixed"
        :label="t('door.lockable')"
        :options="[
          { value: '', label: t('door.unsaid') },
          { value: 'yes', label: t('door.yes') },
          { value: 'no', label: t('door.no') },
        ]"
        @update:model-value="set('lockable', told($event))"
      />
    </div>
    <ol v-if="count.bays.length > 0" class="bays">
      <li v-for="(b, i) in count.bays" :key="i" :class="{ unseen: !b.seen, empty: b.kind === 'empty' }">
        <strong>{{ t('door.bay', { tag: b.tag }) }}</strong>
        <PickOne
          :model-value="b.kind"
          :disabled="fixed"
          :aria-label="t('door.bay', { tag: b.tag })"
          :options="optionsOf(['empty', 'stations', 'decoders'], (k) => t(`door.${k}`))"
          @update:model-value="kindOf(i, $event)"
        />
        <TextField
          v-if="b.kind !== 'empty'"
          class="input figure"
          inputmode="numeric"
          :model-value="String(b.stations)"
          :aria-label="`${t('door.bay', { tag: b.tag })}: ${t('door.stations')}`"
          :readonly="fixed"
          @change="stationsOf(i, $event)"
        />
        <span class="quiet">
          {{ b.kind === 'empty' ? '' : b.seen ? t('door.seen', { from: b.from!, to: b.to! }) : t('door.notSeen') }}
        </span>
      </li>
    </ol>
    <p class="row">
      <span class="quiet">
        {{
          count.counted === null
            ? t('door.uncounted')
            : t('door.counted', { counted: count.counted, onRecord: count.onRecord })
        }}
      </span>
      <template v-if="!fixed">
        <AppButton @click="set('bays', [...record.bays, { tag: String(record.bays.length + 1) }])">
          {{ t('door.addBay') }}
        </AppButton>
        <AppButton v-if="record.bays.length > 0" @click="set('bays', record.bays.slice(0, -1))">
          {{ t('door.removeBay') }}
        </AppButton>
        <AppButton
          v-if="count.broken.some((b) => b.code === 'terminals_miscounted')"
          look="primary"
          @click="emit('keep', { ok: true, value: terminalsToCount(site, controller) })"
        >
          {{ t('door.toCount') }}
        </AppButton>
      </template>
    </p>
    <p class="caution">{{ t('door.railOff') }}</p>
  </section>
</template>

<style scoped>
.fields {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-start;
  gap: 12px;
}
.fields .field {
  flex: 1 1 170px;
  max-width: 280px;
}
.few {
  max-width: 170px;
}
.bays {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.bays li {
  display: grid;
  gap: 6px;
  border: 2px solid var(--ink);
  border-radius: var(--corner);
  padding: 8px;
  width: 150px;
  align-content: start;
}
.bays li.empty {
  border-style: dashed;
  border-color: var(--quiet);
}
.bays li.unseen {
  border-color: var(--fault);
}
@media (max-width: 759px) {
  .bays li {
    width: 100%;
  }
  .fields .field {
    max-width: none;
  }
}
</style>
