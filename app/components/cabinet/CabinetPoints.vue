<script setup lang="ts">
import {
  entries,
  getOrThrow,
  setField,
  terminalsInOrder,
  type Command,
  type ControllerId,
  type FieldOf,
  type PointOfConnection,
  type PointOfConnectionId,
  type Site,
  type ValueOf,
} from '../../../core/site'
import { masterSums, newPointCommands, pointsOf } from '../../../core/cabinet'
import { refusal, refused, type Outcome } from '../../../core/refusal'
import { useWiringWords } from '../../composables/useWiringWords'

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
const valueOf = (event: Event) => (event.target as HTMLInputElement).value
const ROLES = [
  ['masterValve', 'coil'],
  ['pumpRelay', 'relay'],
  ['flowSensor', 'flow_sensor'],
] as const
const choices = (kind: string) =>
  entries(props.site.devices)
    .filter(([, d]) => d.kind === kind)
    .map(([id, d]) => ({ id, name: [d.tag, d.name].filter(Boolean).join(' ') }))
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
        <div class="field">
          <label :for="`${id}-t`">{{ t('door.terminal') }}</label>
          <select
            :id="`${id}-t`"
            class="input figure"
            :value="p.terminal?.terminal ?? ''"
            :disabled="fixed"
            @change="set(id, 'terminal', valueOf($event) === '' ? null : { controller, terminal: valueOf($event) })"
          >
            <option value="">{{ t('door.nobody') }}</option>
            <option v-for="m in masters" :key="m.id" :value="m.id">{{ m.tag }}</option>
          </select>
        </div>
        <div class="field">
          <label :for="`${id}-rest`">{{ t('door.masterValve') }}, {{ t('door.rest').toLowerCase() }}</label>
          <select
            :id="`${id}-rest`"
            class="input"
            :value="p.masterRest"
            :disabled="fixed"
            @change="set(id, 'masterRest', valueOf($event) as PointOfConnection['masterRest'])"
          >
            <option value="closed">{{ t('door.closed') }}</option>
            <option value="open">{{ t('door.openRest') }}</option>
          </select>
        </div>
      </div>
      <div class="fields">
        <div v-for="[role, kind] in ROLES" :key="role" class="field">
          <label :for="`${id}-${role}`">{{ t(`door.${role}`) }}</label>
          <select
            :id="`${id}-${role}`"
            class="input"
            :value="p[role] ?? ''"
            :disabled="fixed"
            @change="set(id, role, valueOf($event) || null)"
          >
            <option value="">{{ t('door.nobody') }}</option>
            <option v-for="d in choices(kind)" :key="d.id" :value="d.id">{{ d.name }}</option>
          </select>
          <select
            v-if="p[role] !== null"
            class="input"
            :value="p.reached[role]"
            :disabled="fixed"
            :aria-label="`${t(`door.${role}`)}: ${t('door.reached')}`"
            @change="set(id, 'reached', { ...p.reached, [role]: valueOf($event) })"
          >
            <option value="direct">{{ t('door.direct') }}</option>
            <option value="path">{{ t('door.path') }}</option>
          </select>
        </div>
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
      <input v-model="name" class="input pick" :placeholder="t('door.pointName')" :aria-label="t('door.pointName')" />
      <button type="submit" class="button">{{ t('door.addPoint') }}</button>
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
      <label class="check">
        <input
          type="checkbox"
          :checked="record.masterFirst"
          :disabled="fixed"
          @change="
            emit('keep', {
              ok: true,
              value: [
                {
                  do: 'set',
                  in: 'controllers',
                  id: controller,
                  field: 'masterFirst',
                  value: ($event.target as HTMLInputElement).checked,
                },
              ],
            })
          "
        />
        {{ t('door.masterFirst') }}
      </label>
    </div>
    <fieldset v-if="stations.some(([, s]) => s.pointOfConnection !== null)">
      <legend class="quiet">{{ t('door.perStation') }}</legend>
      <p class="checks">
        <label v-for="[sid, s] in stations" :key="sid" class="check">
          <input
            type="checkbox"
            :checked="s.withMaster"
            :disabled="fixed || s.pointOfConnection === null"
            @change="
              emit('keep', {
                ok: true,
                value: [
                  {
                    do: 'set',
                    in: 'stations',
                    id: sid,
                    field: 'withMaster',
                    value: ($event.target as HTMLInputElement).checked,
                  },
                ],
              })
            "
          />
          {{ ' ' }}
          <span class="figure">{{ record.terminals[s.terminal]!.tag }}</span>
        </label>
      </p>
    </fieldset>
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
.check {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 40px;
  cursor: pointer;
}
.check input {
  width: 20px;
  height: 20px;
  accent-color: var(--copper);
}
@media (max-width: 759px) {
  .check {
    min-height: 48px;
    min-width: 72px;
  }
  .check input {
    width: 26px;
    height: 26px;
  }
  .fields .field {
    max-width: none;
  }
}
</style>
