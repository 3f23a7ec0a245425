<script setup lang="ts">
import { gaugeText, lengthText } from '../../../../../core/quantity'
import {
  entries,
  getOrThrow,
  type CableId,
  type CoreId,
  type StationId,
  stationLabelled,
} from '../../../../../core/site'
import { runsOf } from '../../../../../core/plan'
import {
  brokenRules,
  pinCommands,
  planRun,
  wireCommands,
  wiringPlanCommands,
  type RunPlan,
  type Unwired,
} from '../../../../../core/splice'
import { say } from '../../../../../words'
import { sayBreach } from '../../../../../words/breach'
import { unbroken } from '../../../../composables/useSpeaker'
import { useWiringPage } from '../../../../composables/useWiringPage'
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
const nameOf = (terminal: string | null) => stationLabelled(site.value, terminal ?? '')?.name ?? ''
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
      <AppTable
        v-else
        :rows="plan.cores"
        :columns="columns"
        :row-key="(c) => c.core"
        :label="`${t('wiring.core')} ${record.tag ?? ''}`"
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
    </section>
    <WiringSettings :site="site" :fixed="fixed" :keep="keep" />
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
.pin {
  min-width: 130px;
  max-width: 220px;
}
</style>
