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
import { optionsOf } from '../../lib/options'

/** What the controller is made of: base and bays in order, its clamps, its transformer, where it hangs. */
const props = defineProps<{ site: Site; controller: ControllerId; fixed: boolean }>()
const emit = defineEmits<{ keep: [outcome: Outcome<Command[]>] }>()
const { t } = useWiringWords(() => props.site.settings.units)
const record = computed(() => getOrThrow(props.site.controllers, props.controller))
const count = computed(() => modulesOf(props.site, props.controller))
const set = <F extends FieldOf<'controllers'>>(field: F, value: ValueOf<'controllers', F>) =>
  emit('keep', { ok: true, value: [setField('controllers', props.controller, field, value)] })
/** A figure as typed, or a refusal that names its limits; nothing typed means that it is not known. */
function figure(event: Event, low: number, high: number, whole: boolean, then: (value: number | null) => void): void {
  const text = valueOf(event).trim().replace(',', '.')
  const value = text === '' ? null : Number(text)
  if (value !== null && !(value >= low && value <= high && (!whole || Number.isInteger(value))))
    emit(
      'keep',
      refused(
        refusal('not_within', [(event.target as HTMLInputElement).getAttribute('aria-label') ?? ''], { low, high }),
      ),
    )
  else then(value)
}
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
      <div class="field few">
        <label for="c-fixed">{{ t('door.fixed') }}</label>
        <TextField
          id="c-fixed"
          class="input figure"
          inputmode="numeric"
          :model-value="String(record.fixedStations ?? '')"
          :aria-label="t('door.fixed')"
          :placeholder="t('door.unsaid')"
          :readonly="fixed"
          @change="figure($event, 0, 400, true, (v) => set('fixedStations', v))"
        />
      </div>
      <div class="field few">
        <label for="c-most">{{ t('door.most') }}</label>
        <TextField
          id="c-most"
          class="input figure"
          inputmode="numeric"
          :model-value="String(record.mostStations ?? '')"
          :placeholder="t('door.unsaid')"
          :readonly="fixed"
          @change="figure($event, 1, 9999, true, (v) => set('mostStations', v))"
        />
      </div>
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
      <div class="field few">
        <label for="c-va">{{ t('door.rating') }}</label>
        <TextField
          id="c-va"
          class="input figure"
          inputmode="decimal"
          :model-value="String(record.transformer?.rating_VA ?? '')"
          :aria-label="t('door.rating')"
          :placeholder="t('door.unsaid')"
          :readonly="fixed"
          @change="figure($event, 1, 2000, false, (v) => transformer('rating_VA', v))"
        />
      </div>
      <div class="field few">
        <label for="c-open">{{ t('door.openVolts') }}</label>
        <TextField
          id="c-open"
          class="input figure"
          inputmode="decimal"
          :model-value="String(record.transformer?.open_V ?? '')"
          :aria-label="t('door.openVolts')"
          :placeholder="String(site.settings.V_open_V)"
          :readonly="fixed"
          @change="figure($event, 24.1, 60, false, (v) => transformer('open_V', v))"
        />
      </div>
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
          @change="figure($event, 1, 400, true, (v) => setBay(i, { ...record.bays[i]!.module!, stations: v ?? 1 }))"
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
