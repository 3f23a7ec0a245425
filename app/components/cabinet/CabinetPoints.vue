<script setup lang="ts">
import {
  entries,
  getOrThrow,
  setField,
  terminalsInOrder,
  tagAndName,
  type Command,
  type ControllerId,
  type FieldOf,
  type PointOfConnection,
  type PointOfConnectionId,
  type Site,
  type ValueOf,
} from '../../../core/site'
import { flowIn, flowUnit, toLitresPerMinute } from '../../../core/quantity'
import { masterSums, newPointCommands, pointsOf } from '../../../core/cabinet'
import { refusal, refused, type Outcome } from '../../../core/refusal'
import { useWiringWords } from '../../composables/useWiringWords'
import { valueOf } from '../../lib/fields'

/** Where water comes in: the devices of each point, how they are reached, and what hangs on the master terminal. */
const props = defineProps<{ site: Site; controller: ControllerId; fixed: boolean }>()
const emit = defineEmits<{ keep: [outcome: Outcome<Command[]>] }>()
const { t } = useWiringWords(() => props.site.settings.units)
const record = computed(() => getOrThrow(props.site.controllers, props.controller))
const points = computed(() => pointsOf(props.site, props.controller))
const sums = computed(() => masterSums(props.site, props.controller))
const masters = computed(() =>
  terminalsInOrder(props.site, props.controller)
    .filter((id) => record.value.terminals[id]!.role === 'master')
    .map((id) => ({ id, tag: record.value.terminals[id]!.label || record.value.terminals[id]!.tag })),
)
const stations = computed(() =>
  terminalsInOrder(props.site, props.controller).flatMap((terminal) =>
    entries(props.site.stations).filter(([, s]) => s.controller === props.controller && s.terminal === terminal),
  ),
)
type Field = FieldOf<'pointsOfConnection'>
const set = <F extends Field>(id: PointOfConnectionId, field: F, value: ValueOf<'pointsOfConnection', F>) =>
  emit('keep', { ok: true, value: [setField('pointsOfConnection', id, field, value)] })
const ROLES = [
  ['masterValve', 'coil'],
  ['pumpRelay', 'relay'],
  ['flowSensor', 'flow_sensor'],
] as const
const choices = (kind: string) =>
  entries(props.site.devices)
    .filter(([, d]) => d.kind === kind)
    .map(([id, d]) => ({ id, name: tagAndName(d) }))
const sumOf = (p: PointOfConnection) => sums.value.find((s) => s.terminal === p.terminal?.terminal) ?? null
const name = ref('')
function add(): void {
  emit('keep', newPointCommands(props.site, props.controller, name.value.trim() || t('door.points')))
  name.value = ''
}
function setLimit(event: Event): void {
  const value = Number(valueOf(event).replace(',', '.'))
  emit(
    'keep',
    value > 0 && value <= 10
      ? { ok: true, value: [{ do: 'set', in: 'controllers', id: props.controller, field: 'masterLimit_A', value }] }
      : refused(refusal('not_within', [t('door.masterLimit')], { low: 0.01, high: 10 })),
  )
}
const unit = computed(() => flowUnit(props.site.settings.units.length))
/** A flow as it is shown: to a hundredth of its unit. */
const shownFlow = (flow_Lmin: number | null) =>
  flow_Lmin === null ? null : Math.round(flowIn(flow_Lmin, props.site.settings.units.length) * 100) / 100
const keptFlow = (flow: number | null) =>
  flow === null ? null : toLitresPerMinute(flow, props.site.settings.units.length)
const amps = (x: number) => `${x.toFixed(2)} A`
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('door.points') }}</h2>
    <article v-for="[id, p] in points" :key="id" class="point stack">
      <div class="fields">
        <div class="field">
          <label :for="`${id}-name`">{{ t('door.name') }}</label>
          <TextField
            :id="`${id}-name`"
            class="input"
            :model-value="p.name"
            :readonly="fixed"
            @change="set(id, 'name', valueOf($event).trim())"
          />
        </div>
        <PickOne
          :id="`${id}-t`"
          :model-value="p.terminal?.terminal ?? ''"
          :disabled="fixed"
          :label="t('door.terminal')"
          :options="[{ value: '', label: t('door.nobody') }, ...masters.map((m) => ({ value: m.id, label: m.tag }))]"
          @update:model-value="set(id, 'terminal', $event === '' ? null : { controller, terminal: $event })"
        />
        <PickOne
          :id="`${id}-rest`"
          :model-value="p.masterRest"
          :disabled="fixed"
          :label="`${t('door.masterValve')}, ${t('door.rest').toLowerCase()}`"
          :options="[
            { value: 'closed', label: t('door.closed') },
            { value: 'open', label: t('door.openRest') },
          ]"
          @update:model-value="set(id, 'masterRest', $event)"
        />
        <OpenFigure
          :id="`${id}-most`"
          :label="t('door.mostWater', { unit })"
          :value="shownFlow(p.most_Lmin)"
          :low="0.01"
          :high="100000"
          :none="t('door.flowUnknown')"
          :fixed="fixed"
          @store="set(id, 'most_Lmin', keptFlow($event))"
        />
      </div>
      <div class="fields">
        <PickOne
          v-for="[role, kind] in ROLES"
          :id="`${id}-${role}`"
          :key="role"
          :label="t(`door.${role}`)"
          :model-value="p[role] ?? ''"
          :disabled="fixed"
          :options="[
            { value: '', label: t('door.nobody') },
            ...choices(kind).map((d) => ({ value: d.id, label: d.name })),
          ]"
          @update:model-value="set(id, role, $event || null)"
        >
          <PickOne
            v-if="p[role] !== null"
            :model-value="p.reached[role]"
            :disabled="fixed"
            :aria-label="`${t(`door.${role}`)}: ${t('door.reached')}`"
            :options="[
              { value: 'direct', label: t('door.direct') },
              { value: 'path', label: t('door.path') },
            ]"
            @update:model-value="set(id, 'reached', { ...p.reached, [role]: $event })"
          />
        </PickOne>
      </div>
      <p v-if="sumOf(p)" :class="sumOf(p)!.over ? 'fault' : 'quiet'">
        <StateMark :state="sumOf(p)!.over ? 'fault' : 'fits'" silent />
        {{
          t('door.sum', {
            terminal: record.terminals[sumOf(p)!.terminal]!.tag,
            sum: amps(sumOf(p)!.sum_A),
            limit: amps(sumOf(p)!.limit_A),
          })
        }}
      </p>
      <p v-if="p.pumpRelay" class="quiet">
        {{ t('door.relayHow', { terminal: p.terminal ? (record.terminals[p.terminal.terminal]?.tag ?? '') : '' }) }}
      </p>
      <p v-if="p.pumpRelay" class="caution">{{ t('door.relayCare') }}</p>
    </article>
    <form v-if="!fixed" class="row" @submit.prevent="add">
      <TextField v-model="name" class="pick" :placeholder="t('door.pointName')" :aria-label="t('door.pointName')" />
      <AppButton type="submit">{{ t('door.addPoint') }}</AppButton>
    </form>
    <div class="fields">
      <div class="field">
        <label for="m-limit">{{ t('door.masterLimit') }}</label>
        <TextField
          id="m-limit"
          class="input figure"
          inputmode="decimal"
          :model-value="String(record.masterLimit_A)"
          :readonly="fixed"
          @change="setLimit"
        />
      </div>
      <TickBox
        :model-value="record.masterFirst"
        :disabled="fixed"
        @update:model-value="
          emit('keep', { ok: true, value: [setField('controllers', controller, 'masterFirst', $event)] })
        "
      >
        {{ t('door.masterFirst') }}
      </TickBox>
    </div>
    <fieldset v-if="stations.some(([, s]) => s.pointOfConnection !== null)">
      <legend class="quiet">{{ t('door.perStation') }}</legend>
      <p class="checks">
        <TickBox
          v-for="[sid, s] in stations"
          :key="sid"
          :model-value="s.withMaster"
          :disabled="fixed || s.pointOfConnection === null"
          @update:model-value="emit('keep', { ok: true, value: [setField('stations', sid, 'withMaster', $event)] })"
        >
          <span class="figure">{{ record.terminals[s.terminal]!.tag }}</span>
        </TickBox>
      </p>
    </fieldset>
    <details v-if="stations.some(([, s]) => s.pointOfConnection !== null)">
      <summary>{{ t('door.flows', { unit }) }}</summary>
      <p class="quiet">{{ t('door.flowsHow') }}</p>
      <div class="fields flows">
        <OpenFigure
          v-for="[sid, s] in stations.filter(([, s]) => s.pointOfConnection !== null)"
          :id="`${sid}-flow`"
          :key="sid"
          :label="`${s.address ?? record.terminals[s.terminal]!.tag} ${s.name}`"
          :value="shownFlow(s.flow_Lmin)"
          :low="0.01"
          :high="100000"
          :none="t('door.flowUnknown')"
          :fixed="fixed"
          @store="emit('keep', { ok: true, value: [setField('stations', sid, 'flow_Lmin', keptFlow($event))] })"
        />
      </div>
    </details>
  </section>
</template>

<style scoped>
.point {
  border-left: 3px solid var(--rule);
  padding-left: 12px;
  gap: 8px;
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: end;
}
.fields .field {
  flex: 1 1 180px;
  max-width: 300px;
  align-self: start;
}
.pick {
  width: auto;
  min-width: 220px;
}
.checks {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  padding-top: 6px;
}
@media (max-width: 759px) {
  .fields .field {
    max-width: none;
  }
}
</style>
