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
function pin(cable: CableId, core: CoreId, event: Event): void {
  const v = (event.target as HTMLSelectElement).value
  void keep({
    ok: true,
    value: pinCommands(
      site.value,
      cable,
      core,
      v === '' ? null : v === 'common' || v === 'spare' ? { use: v } : { use: 'station', station: v as StationId },
    ),
  })
}
const wire = (plan: RunPlan, u: Unwired) => void keep(wireCommands(site.value, plan.run, u))
const colourOf = (plan: RunPlan, u: Unwired) =>
  plan.cores.find((c) => c.core === u.core)?.colour ?? plan.cores.find((c) => c.core === u.core)?.planned ?? ''

const wiring = computed(() => site.value.settings.wiring)
const set = (field: keyof Settings['wiring'], value: unknown) =>
  void keep({ ok: true, value: [{ do: 'setSetting', field: 'wiring', value: { ...wiring.value, [field]: value } }] })
const valueOf = (event: Event) => (event.target as HTMLInputElement).value
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
</script>

<template>
  <div class="stack">
    <div class="row title">
      <h1>{{ t('wiring.title') }}</h1>
      <button
        v-if="!fixed && whole.ok && whole.value.length > 0"
        type="button"
        class="button primary"
        @click="keep(whole)"
      >
        {{ t('wiring.plan') }}
      </button>
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
        <button v-if="u.core !== null && !fixed" type="button" class="button" @click="wire(plan, u)">
          {{ t('wiring.wire', { colour: colourOf(plan, u) }) }}
        </button>
        <span v-else-if="u.core === null">{{ t('wiring.noSpare') }}</span>
      </p>
      <p v-if="record.kind !== 'multicore'" class="quiet">{{ t('wiring.singles') }}</p>
      <div v-else class="scroll" tabindex="0" role="region" :aria-label="`${t('wiring.core')} ${record.tag ?? ''}`">
        <table class="table">
          <thead>
            <tr>
              <th scope="col">{{ t('wiring.core') }}</th>
              <th scope="col">{{ t('wiring.serves') }}</th>
              <th scope="col">{{ t('wiring.cutAt') }}</th>
              <th scope="col">{{ t('wiring.through') }}</th>
              <th scope="col">{{ t('wiring.planColour') }}</th>
              <th scope="col">{{ t('wiring.pin') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="c in plan.cores" :key="c.core">
              <td>
                <CoreSwatch :colour="c.colour ?? c.planned" />
                {{ c.colour ?? t('boxes.unsaid') }}
              </td>
              <td>
                <span class="figure">{{ c.terminal ?? '' }}</span>
                {{ c.use === 'in_use' ? nameOf(c.terminal) : t(`boxes.use.${c.use}`) }}
              </td>
              <td class="figure">{{ c.cutAt.map(tag).join(' ') }}</td>
              <td class="figure quiet">{{ c.through.map(tag).join(' ') }}</td>
              <td :class="{ quiet: c.planned === c.colour }">{{ c.planned }}</td>
              <td>
                <select
                  class="input pin"
                  :value="pinOf(plan.run.cable, c.core)"
                  :disabled="fixed"
                  :aria-label="`${t('wiring.pin')}: ${record.tag ?? ''} ${c.colour ?? c.planned}`"
                  @change="pin(plan.run.cable, c.core, $event)"
                >
                  <option value="">{{ t('wiring.pinNone') }}</option>
                  <option value="common">{{ t('wiring.pinCommon') }}</option>
                  <option value="spare">{{ t('wiring.pinSpare') }}</option>
                  <option v-for="[id, s] in stationsOf(plan)" :key="id" :value="id">
                    {{ getOrThrow(getOrThrow(site.controllers, s.controller).terminals, s.terminal).tag }} {{ s.name }}
                  </option>
                </select>
              </td>
            </tr>
          </tbody>
        </table>
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
        <div class="field">
          <label for="w-many">{{ t('wiring.manyCommons') }}</label>
          <select
            id="w-many"
            class="input"
            :value="wiring.manyCommons"
            :disabled="fixed"
            @change="set('manyCommons', valueOf($event))"
          >
            <option value="chain">{{ t('wiring.chain') }}</option>
            <option value="split">{{ t('wiring.split') }}</option>
          </select>
        </div>
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
          <label class="check">
            <input
              type="checkbox"
              :checked="carriedNow.some((c) => c.kind === k)"
              :disabled="fixed || (carriedNow.length === 1 && carriedNow[0]!.kind === k)"
              @change="carry(k, ($event.target as HTMLInputElement).checked)"
            />
            {{ t(`connector.${k}`) }}
          </label>
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
.check {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 40px;
  min-width: 220px;
  cursor: pointer;
}
.check input {
  width: 20px;
  height: 20px;
  accent-color: var(--copper);
}
@media (max-width: 759px) {
  .pin,
  .slim {
    min-height: 48px;
  }
  .fields .field {
    max-width: none;
  }
  .check {
    min-height: 48px;
  }
}
</style>
