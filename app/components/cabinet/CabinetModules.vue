<script setup lang="ts">
import {
  getOrThrow,
  setField,
  type Bay,
  type Command,
  type Controller,
  type ControllerId,
  type FieldOf,
  type Site,
  type ValueOf,
} from '../../../core/site'
import { modulesOf, terminalsToCount } from '../../../core/cabinet'
import { refusal, refused, type Outcome } from '../../../core/refusal'
import { useWiringWords } from '../../composables/useWiringWords'

/** What the controller is made of: base and bays in order, its clamps, its transformer, where it hangs. */
const props = defineProps<{ site: Site; controller: ControllerId; fixed: boolean }>()
const emit = defineEmits<{ keep: [outcome: Outcome<Command[]>] }>()
const { t } = useWiringWords(() => props.site.settings.units)
const record = computed(() => getOrThrow(props.site.controllers, props.controller))
const count = computed(() => modulesOf(props.site, props.controller))
const set = <F extends FieldOf<'controllers'>>(field: F, value: ValueOf<'controllers', F>) =>
  emit('keep', { ok: true, value: [setField('controllers', props.controller, field, value)] })
const valueOf = (event: Event) => (event.target as HTMLInputElement).value
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
const told = (event: Event) => {
  const v = valueOf(event)
  return v === '' ? null : v === 'yes'
}
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('door.modules') }}</h2>
    <div class="fields">
      <div class="field">
        <label for="c-kind">{{ t('door.kind') }}</label>
        <select
          id="c-kind"
          class="input"
          :value="record.kind"
          :disabled="fixed"
          @change="set('kind', valueOf($event) as Controller['kind'])"
        >
          <option v-for="k in ['conventional', 'hybrid', 'two_wire']" :key="k" :value="k">
            {{ t(`door.kinds.${k}`) }}
          </option>
        </select>
      </div>
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
        <label for="c-holds">{{ t('door.commonHolds') }}</label>
        <select
          id="c-holds"
          class="input figure"
          :value="record.commonHolds"
          :disabled="fixed"
          @change="set('commonHolds', Number(valueOf($event)))"
        >
          <option :value="1">1</option>
          <option :value="2">2</option>
        </select>
      </div>
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
          @change="figure($event, 1, 2000, false, (v) => set('transformer', v === null ? null : { rating_VA: v }))"
        />
      </div>
      <div class="field">
        <label for="c-indoor">{{ t('door.indoor') }}</label>
        <select
          id="c-indoor"
          class="input"
          :value="yesNo(record.indoor)"
          :disabled="fixed"
          @change="set('indoor', told($event))"
        >
          <option value="">{{ t('door.unsaid') }}</option>
          <option value="yes">{{ t('door.indoors') }}</option>
          <option value="no">{{ t('door.outdoors') }}</option>
        </select>
      </div>
      <div class="field">
        <label for="c-lock">{{ t('door.lockable') }}</label>
        <select
          id="c-lock"
          class="input"
          :value="yesNo(record.lockable)"
          :disabled="fixed"
          @change="set('lockable', told($event))"
        >
          <option value="">{{ t('door.unsaid') }}</option>
          <option value="yes">{{ t('door.yes') }}</option>
          <option value="no">{{ t('door.no') }}</option>
        </select>
      </div>
    </div>
    <ol v-if="count.bays.length > 0" class="bays">
      <li v-for="(b, i) in count.bays" :key="i" :class="{ unseen: !b.seen, empty: b.kind === 'empty' }">
        <strong>{{ t('door.bay', { tag: b.tag }) }}</strong>
        <select
          class="input"
          :value="b.kind"
          :disabled="fixed"
          :aria-label="t('door.bay', { tag: b.tag })"
          @change="kindOf(i, valueOf($event))"
        >
          <option v-for="k in ['empty', 'stations', 'decoders']" :key="k" :value="k">{{ t(`door.${k}`) }}</option>
        </select>
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
        <button
          type="button"
          class="button"
          @click="set('bays', [...record.bays, { tag: String(record.bays.length + 1) }])"
        >
          {{ t('door.addBay') }}
        </button>
        <button
          v-if="record.bays.length > 0"
          type="button"
          class="button"
          @click="set('bays', record.bays.slice(0, -1))"
        >
          {{ t('door.removeBay') }}
        </button>
        <button
          v-if="count.broken.some((b) => b.code === 'terminals_miscounted')"
          type="button"
          class="button primary"
          @click="emit('keep', { ok: true, value: terminalsToCount(site, controller) })"
        >
          {{ t('door.toCount') }}
        </button>
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
