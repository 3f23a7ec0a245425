<script setup lang="ts">
import { gaugeText, inUnit, lengthText, parseLength } from '../../../../../core/quantity'
import { refusal, refused } from '../../../../../core/refusal'
import { entries, getOrThrow, type CableId, type CoreId, type Settings, type StationId } from '../../../../../core/site'
import { runsOf } from '../../../../../core/plan'
import {
  brokenRules,
  carried,
  coloursInOrder,
  limitsOf,
  pinCommands,
  planRun,
  wireCommands,
  wiringPlanCommands,
  type Connector,
  type RunPlan,
  type Unwired,
} from '../../../../../core/splice'
import { say } from '../../../../../words'
import { sayBreach } from '../../../../../words/breach'
import { unbroken } from '../../../../composables/useSpeaker'
import { useWiringPage } from '../../../../composables/useWiringPage'
import { valueOf } from '../../../../lib/fields'
import type { TableColumn } from '../../../../lib/table'

/** The wiring plan: what every run needs, which core serves whom in which colour, what breaks a rule. */
const { site, t, speaker, keep, sentences, fixed } = useWiringPage()
const route = useRoute()
const plans = computed(() =>
  entries(site.value.controllers)
    .flatMap(([c]) => runsOf(site.value, c))
    .map((run) => ({ plan: planRun(site.value, run), record: getOrThrow(site.value.cables, run.cable) })),
)
const whole = computed(() => wiringPlanCommands(site.value))
const rules = computed(() => brokenRules(site.value))
const tag = (place: string) => site.value.places[place as keyof typeof site.value.places]?.tag ?? place
const nameOf = (terminal: string | null) => {
  const [c, n] = (terminal ?? ':').split(':')
  return (
    Object.values(site.value.stations).find((s) => {
      const k = getOrThrow(site.value.controllers, s.controller)
      return k.tag === c && getOrThrow(k.terminals, s.terminal).tag === n
    })?.name ?? ''
  )
}
const stationsOf = (plan: RunPlan) =>
  entries(site.value.stations).filter(([, s]) => s.controller === plan.run.controller)
const pinOf = (cable: CableId, core: CoreId) => {
  const p = getOrThrow(getOrThrow(site.value.cables, cable).cores, core).pinned
  return p === null ? '' : p.use === 'station' ? p.station : p.use
}
type Pin = Parameters<typeof pinCommands>[3]
const NO_STATION: Readonly<Record<string, Pin>> = { '': null, common: { use: 'common' }, spare: { use: 'spare' } }
function pin(cable: CableId, core: CoreId, to: string): void {
  const use = NO_STATION[to] === undefined ? { use: 'station' as const, station: to as StationId } : NO_STATION[to]
  void keep({ ok: true, value: pinCommands(site.value, cable, core, use) })
}
const wire = (plan: RunPlan, u: Unwired) => void keep(wireCommands(site.value, plan.run, u))
const colourOf = (plan: RunPlan, u: Unwired) =>
  plan.cores.find((c) => c.core === u.core)?.colour ?? plan.cores.find((c) => c.core === u.core)?.planned ?? ''

const wiring = computed(() => site.value.settings.wiring)
const set = (field: keyof Settings['wiring'], value: unknown) =>
  void keep({ ok: true, value: [{ do: 'setSetting', field: 'wiring', value: { ...wiring.value, [field]: value } }] })
const unit = computed(() => site.value.settings.units.length)
function number(event: Event, field: keyof Settings['wiring'], low: number, high: number, whole: boolean): void {
  const value = Number(valueOf(event).replace(',', '.'))
  if (value >= low && value <= high && (!whole || Number.isInteger(value))) set(field, value)
  else void keep(refused(refusal('not_within', [t(`wiring.${field}`)], { low, high })))
}
function reach(event: Event): void {
  const m = parseLength(valueOf(event), unit.value)
  if (m !== null && m > 0) set('multicoreFarthest_m', m)
  else void keep(refused(refusal('not_a_length', [t('wiring.multicoreFarthest_m')], { text: valueOf(event) })))
}
const KINDS = ['gel_crimp_3', 'nut_and_gel_tube', 'gel_nut', 'solder_heatshrink'] as const
const carriedNow = computed(() => carried(site.value.settings))
function carry(kind: (typeof KINDS)[number], on: boolean): void {
  set(
    'connectors',
    on ? [...carriedNow.value, limitsOf(site.value.settings, kind)!] : carriedNow.value.filter((c) => c.kind !== kind),
  )
}
function limit(kind: Connector['kind'], field: 'most' | 'thickest_mm2' | 'together_mm2', event: Event): void {
  const value = Number(valueOf(event).replace(',', '.'))
  if (value > 0 && value <= 200)
    set(
      'connectors',
      carriedNow.value.map((c) => (c.kind === kind ? { ...c, [field]: value } : c)),
    )
  else void keep(refused(refusal('not_within', [t(`connector.${kind}`)], { low: 0, high: 200 })))
}
const pinsOf = (plan: RunPlan) => [
  { value: '', label: t('wiring.pinNone') },
  { value: 'common', label: t('wiring.pinCommon') },
  { value: 'spare', label: t('wiring.pinSpare') },
  ...stationsOf(plan).map(([id, s]) => ({
    value: id,
    label: `${getOrThrow(getOrThrow(site.value.controllers, s.controller).terminals, s.terminal).tag} ${s.name}`,
  })),
]
const columns = computed<TableColumn<RunPlan['cores'][number]>[]>(() => [
  { key: 'core', header: t('wiring.core') },
  { key: 'serves', header: t('wiring.serves') },
  { key: 'cutAt', header: t('wiring.cutAt'), figure: true },
  { key: 'through', header: t('wiring.through'), figure: true },
  { key: 'colour', header: t('wiring.planColour') },
  { key: 'pin', header: t('wiring.pin') },
])
</script>

<template>
  <div class="stack">
    <div class="row title">
      <h1>{{ t('wiring.title') }}</h1>
      <AppButton v-if="!fixed && whole.ok && whole.value.length > 0" look="primary" @click="keep(whole)">
        {{ t('wiring.plan') }}
      </AppButton>
      <span v-else-if="whole.ok && plans.length > 0" class="fits">
        <StateMark state="fits" silent />
        {{ t('wiring.planned') }}
      </span>
    </div>
    <p class="quiet">{{ t('wiring.how') }}</p>
    <ul v-if="!whole.ok" class="sheet wrong" role="alert">
      <li v-for="(r, i) in whole.refusals" :key="i">
        {{ say({ code: `refusal.${r.code}`, params: { ...r.params, where: String(r.params.at ?? '') } }, speaker) }}
      </li>
    </ul>
    <ul v-if="sentences.length > 0" class="sheet wrong" role="alert">
      <li v-for="s in sentences" :key="s">{{ s }}</li>
    </ul>
    <section v-if="plans.length === 0" class="sheet stack">
      <p>{{ t('boxes.none') }} {{ t('boxes.noneHow') }}</p>
      <p>
        <NuxtLink class="button primary" :to="`/p/${String(route.params.id)}/plan`">{{ t('plan.begin') }}</NuxtLink>
      </p>
    </section>
    <section v-if="rules.length > 0" class="sheet rules">
      <h2>{{ t('wiring.rules') }}</h2>
      <p v-for="(r, i) in rules" :key="i">
        <StateMark :state="r.weight === 'wrong' ? 'fault' : 'doubtful'" />
        {{ ' ' }}
        <NuxtLink :to="`/p/${String(route.params.id)}/boxes/${r.place}`">{{ sayBreach(r, speaker) }}</NuxtLink>
      </p>
    </section>
    <section v-for="{ plan, record } in plans" :key="plan.run.cable" class="sheet stack">
      <div class="row head">
        <h2>
          <span class="figure">{{ record.tag }}</span>
          {{ ' ' }}
          <span class="quiet">
            {{ record.name }}{{ record.gauge ? `, ${gaugeText(record.gauge.value)}` : ''
            }}{{ plan.laid ? `, ${t('wiring.laid')}` : '' }}
          </span>
        </h2>
      </div>
      <p>
        {{ t('wiring.needs', { ...plan.needs }) }}{{ record.kind === 'multicore' ? ';' : '' }}
        <template v-if="record.kind === 'multicore'">
          {{ t('wiring.has', { count: plan.has }) }}.
          <template v-if="!plan.laid">
            {{ ' ' }}{{ plan.jacket === null ? t('wiring.noJacket') : t('wiring.jacket', { count: plan.jacket }) }}.
          </template>
        </template>
      </p>
      <p v-if="!plan.laid" class="quiet">
        {{
          t(`wiring.advised.${plan.advised.because}`, {
            farthest_m: unbroken(lengthText(plan.advised.farthest_m, site.settings.units)),
          })
        }}
      </p>
      <p v-for="u in plan.unwired" :key="u.device" class="row doubtful">
        <StateMark state="doubtful" silent />
        {{ t('wiring.unwired') }}: {{ getOrThrow(site.stations, u.station).name }}, {{ tag(u.place) }}
        <AppButton v-if="u.core !== null && !fixed" @click="wire(plan, u)">
          {{ t('wiring.wire', { colour: colourOf(plan, u) }) }}
        </AppButton>
        <span v-else-if="u.core === null">{{ t('wiring.noSpare') }}</span>
      </p>
      <p v-if="record.kind !== 'multicore'" class="quiet">{{ t('wiring.singles') }}</p>
      <div v-else class="scroll" tabindex="0" role="region" :aria-label="`${t('wiring.core')} ${record.tag ?? ''}`">
        <AppTable
          :rows="plan.cores"
          :columns="columns"
          :row-key="(c) => c.core"
          :label="record.tag ?? t('plan.cell.cable')"
        >
          <template #core="{ row: c }">
            <CoreSwatch :colour="c.colour ?? c.planned" />
            {{ c.colour ?? t('boxes.unsaid') }}
          </template>
          <template #serves="{ row: c }">
            <span class="figure">{{ c.terminal ?? '' }}</span>
            {{ c.use === 'in_use' ? nameOf(c.terminal) : t(`boxes.use.${c.use}`) }}
          </template>
          <template #cutAt="{ row: c }">{{ c.cutAt.map(tag).join(' ') }}</template>
          <template #through="{ row: c }">
            <span class="quiet">{{ c.through.map(tag).join(' ') }}</span>
          </template>
          <template #colour="{ row: c }">
            <span :class="{ quiet: c.planned === c.colour }">{{ c.planned }}</span>
          </template>
          <template #pin="{ row: c }">
            <PickOne
              class="pin"
              :model-value="pinOf(plan.run.cable, c.core)"
              :disabled="fixed"
              :aria-label="`${t('wiring.pin')}: ${record.tag ?? ''} ${c.colour ?? c.planned}`"
              :options="pinsOf(plan)"
              @update:model-value="pin(plan.run.cable, c.core, $event)"
            />
          </template>
        </AppTable>
      </div>
    </section>
    <details class="sheet">
      <summary>{{ t('wiring.settings') }}</summary>
      <div class="fields">
        <div class="field">
          <label for="w-least">{{ t('wiring.sparesLeast') }}</label>
          <TextField
            id="w-least"
            class="input figure"
            inputmode="numeric"
            :model-value="String(wiring.sparesLeast)"
            :readonly="fixed"
            @change="number($event, 'sparesLeast', 0, 40, true)"
          />
        </div>
        <div class="field">
          <label for="w-ratio">{{ t('wiring.spares_ratio') }}</label>
          <TextField
            id="w-ratio"
            class="input figure"
            inputmode="decimal"
            :model-value="String(wiring.spares_ratio)"
            :readonly="fixed"
            @change="number($event, 'spares_ratio', 0, 2, false)"
          />
        </div>
        <div class="field">
          <label for="w-far">{{ t('wiring.multicoreFarthest_m') }}, {{ unit }}</label>
          <TextField
            id="w-far"
            class="input figure"
            inputmode="decimal"
            :model-value="String(Math.round(inUnit(wiring.multicoreFarthest_m, unit)))"
            :readonly="fixed"
            @change="reach"
          />
        </div>
        <div class="field">
          <label for="w-most">{{ t('wiring.multicoreMost') }}</label>
          <TextField
            id="w-most"
            class="input figure"
            inputmode="numeric"
            :model-value="String(wiring.multicoreMost)"
            :readonly="fixed"
            @change="number($event, 'multicoreMost', 1, 60, true)"
          />
        </div>
        <div class="field">
          <label for="w-common">{{ t('wiring.commonColour') }}</label>
          <TextField
            id="w-common"
            class="input"
            :model-value="site.settings.commonColour"
            :readonly="fixed"
            @change="
              keep({ ok: true, value: [{ do: 'setSetting', field: 'commonColour', value: valueOf($event).trim() }] })
            "
          />
        </div>
        <PickOne
          id="w-many"
          :model-value="wiring.manyCommons"
          :disabled="fixed"
          :label="t('wiring.manyCommons')"
          :options="[
            { value: 'chain', label: t('wiring.chain') },
            { value: 'split', label: t('wiring.split') },
          ]"
          @update:model-value="set('manyCommons', $event)"
        />
        <div class="field wide">
          <label for="w-colours">{{ t('wiring.colours') }}</label>
          <TextField
            id="w-colours"
            class="input"
            :model-value="wiring.colours.join(', ')"
            :placeholder="coloursInOrder(site, 11).join(', ')"
            :readonly="fixed"
            @change="
              set(
                'colours',
                valueOf($event)
                  .split(',')
                  .map((c) => c.trim())
                  .filter(Boolean),
              )
            "
          />
        </div>
      </div>
      <h3>{{ t('wiring.connectors') }}</h3>
      <ul class="kinds">
        <li v-for="k in KINDS" :key="k" class="row">
          <TickBox
            :model-value="carriedNow.some((c) => c.kind === k)"
            :disabled="fixed || (carriedNow.length === 1 && carriedNow[0]!.kind === k)"
            @update:model-value="carry(k, $event)"
          >
            {{ t(`connector.${k}`) }}
          </TickBox>
          <template v-for="c in carriedNow.filter((x) => x.kind === k)" :key="c.kind">
            <TextField
              v-for="f in ['most', 'thickest_mm2', 'together_mm2'] as const"
              :key="f"
              class="input figure slim"
              inputmode="decimal"
              :model-value="String(c[f])"
              :readonly="fixed"
              :aria-label="`${t(`connector.${k}`)}: ${t(`wiring.limit.${f}`)}`"
              @change="limit(k, f, $event)"
            />
            <span class="quiet">
              {{
                t('wiring.limits', {
                  least: c.least,
                  most: c.most,
                  thin: c.thinnest_mm2,
                  thick: c.thickest_mm2,
                  together: c.together_mm2,
                })
              }}
            </span>
          </template>
        </li>
      </ul>
    </details>
  </div>
</template>

<style scoped>
.title,
.head {
  justify-content: space-between;
}
.wrong {
  color: var(--fault);
  font-weight: 600;
  border-left: 5px solid var(--fault);
}
.rules {
  display: grid;
  gap: 6px;
  border-left: 5px solid var(--doubtful);
}
.rules a {
  color: inherit;
}
.stack > .sheet.stack {
  gap: 8px;
}
.scroll {
  overflow-x: auto;
}
.pin {
  min-height: 34px;
  padding: 2px 6px;
  width: auto;
  max-width: 220px;
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  padding: 12px 0;
}
.fields .field {
  flex: 1 1 160px;
  max-width: 220px;
}
.fields .wide {
  flex-basis: 100%;
  max-width: none;
}
summary {
  font-weight: 700;
  cursor: pointer;
  min-height: 32px;
}
.kinds {
  display: grid;
  gap: 6px;
  padding-top: 8px;
}
.slim {
  width: 76px;
  min-height: 34px;
}
@media (max-width: 759px) {
  .pin,
  .slim {
    min-height: 48px;
  }
  .fields .field {
    max-width: none;
  }
}
</style>
