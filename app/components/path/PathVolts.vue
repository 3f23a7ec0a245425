<script setup lang="ts">
import { knownPath, outputsOn, pathReach, type DecoderVolts, type StretchLoss } from '../../../core/path'
import { gaugeText, lengthText, temperatureText } from '../../../core/quantity'
import { getOrThrow, stationsByNumber, type DeviceId, type PathAt } from '../../../core/site'
import { sayRefusal } from '../../../words'
import { usePathPage, usePathVolts } from '../../composables/usePath'
import type { TableColumn } from '../../lib/table'

/** Volts at every decoder, and at the coils of what runs: the weakest first, and where they are lost. */
const props = defineProps<{ path: PathAt }>()
const { site, t, speaker } = usePathPage()
const route = useRoute()
const asked = () => (typeof route.query.on === 'string' ? [route.query.on] : [])
const running = ref<string[]>(asked())
watch(
  () => route.query.on,
  () => {
    running.value = asked()
  },
)
const under = ref<'usual' | 'worst'>('usual')
const known = computed(() => knownPath(props.path))
const missing = computed(() => (known.value.ok ? [] : known.value.refusals.map((r) => sayRefusal(r, speaker.value))))
const stations = computed(() => stationsByNumber(site.value, props.path.controller))
const answering = computed(() => new Set(outputsOn(site.value, props.path).map((o) => o.address)))
const choices = computed(() =>
  stations.value
    .filter((s) => answering.value.has(s.address))
    .map((s) => ({ value: String(s.address), label: `${s.address} ${s.name}` })),
)
const { found, behind } = usePathVolts(
  () => props.path.controller,
  () => running.value.map(Number),
  () => under.value === 'worst',
)
const current = computed(() => found.value?.current ?? null)
const impedance = computed(() => new Map(found.value?.impedance.decoders.map((d) => [d.decoder, d.volt_V]) ?? []))

const device = (id: DeviceId) => getOrThrow(site.value.devices, id)
const boxOf = (id: DeviceId) => getOrThrow(site.value.places, device(id).place).tag
const tagOf = (id: DeviceId) => device(id).tag ?? id
const outputs = computed(() => {
  const by = new Map<DeviceId, { numbers: number[]; coils: DeviceId[] }>()
  for (const o of outputsOn(site.value, props.path)) {
    const its = by.get(o.decoder) ?? { numbers: [], coils: [] }
    if (o.address !== null) its.numbers.push(o.address)
    its.coils.push(...o.coils)
    by.set(o.decoder, its)
  }
  return by
})
const numbersOf = (id: DeviceId) => outputs.value.get(id)?.numbers.join(', ') ?? ''
const watersOf = (id: DeviceId) => {
  const coils = outputs.value.get(id)?.coils ?? []
  return stations.value
    .filter((s) => s.valves.some((v) => coils.includes(v)))
    .map((s) => s.name)
    .join(', ')
}
const weakest = computed(() => current.value?.decoders[0] ?? null)
const tooLow = computed(() => current.value?.decoders.filter((d) => !d.enough).length ?? 0)
const columns = computed<TableColumn<DecoderVolts>[]>(() => [
  { key: 'volts', header: t('twoWire.volts'), figure: true, sort: (d) => d.volt_V },
  { key: 'decoder', header: t('twoWire.decoder'), sort: (d) => tagOf(d.decoder) },
  { key: 'number', header: t('twoWire.number'), figure: true },
  { key: 'box', header: t('twoWire.box'), sort: (d) => boxOf(d.decoder) },
  { key: 'waters', header: t('twoWire.waters') },
  { key: 'asImpedance', header: t('twoWire.asImpedance'), figure: true },
])
/** Both legs of a stretch as one: what a decoder beyond it has less. */
const losses = computed(() => {
  const by = new Map<string, { of: StretchLoss['link']; volt_V: number; current_A: number }>()
  for (const { link, volt_V, current_A } of current.value?.stretches ?? []) {
    const key = `${link.cable}@${link.from}`
    const its = by.get(key) ?? { of: link, volt_V: 0, current_A: 0 }
    by.set(key, { of: link, volt_V: its.volt_V + volt_V, current_A: Math.max(its.current_A, current_A) })
  }
  return [...by.values()].sort((a, b) => b.volt_V - a.volt_V).slice(0, 12)
})
const stretchName = ({ cable, from, to }: StretchLoss['link']) => {
  const of = getOrThrow(site.value.cables, cable)
  const at = (stop: number) => getOrThrow(site.value.places, of.stops[stop]!.place).tag
  return `${of.tag ?? cable}: ${at(from)} – ${at(to)}`
}
const reach = computed(() => {
  const system = props.path.system
  const coils_A = Math.max(0.4, ...(current.value?.coils.map((c) => c.current_A) ?? []))
  return (system && pathReach(site.value, system, { decoders: props.path.decoders.length, on: 1, coils_A })) ?? []
})
const most_A = computed(() => props.path.system?.most_A ?? null)
const { sizing } = site.value.settings
</script>

<template>
  <div class="stack">
    <p v-for="what in missing" :key="what" class="verdict doubtful" role="alert">
      {{ t('twoWire.cannot', { what }) }}
    </p>
    <template v-if="known.ok">
      <div class="sheet asks">
        <PickSome v-model="running" :label="t('twoWire.running')" :none="t('twoWire.nothingRuns')" :options="choices" />
        <div class="field">
          <span class="label">{{ t('twoWire.under') }}</span>
          <PickBar
            v-model="under"
            :label="t('twoWire.under')"
            :options="
              (['usual', 'worst'] as const).map((value) => ({ value, label: t(`twoWire.conditions.${value}`) }))
            "
          />
        </div>
      </div>
      <p v-if="behind && !current" class="quiet" role="status">{{ t('twoWire.working') }}</p>
      <template v-if="current && weakest">
        <p class="verdict" :class="tooLow > 0 ? 'fault' : 'fits'" aria-live="polite">
          <StateMark :state="tooLow > 0 ? 'fault' : 'fits'" silent />
          {{ ' ' }}
          <strong>{{ tooLow > 0 ? t('twoWire.notEnough', tooLow) : t('twoWire.allEnough') }}</strong>
          {{ ' ' }}
          {{
            t('twoWire.weakest', {
              decoder: tagOf(weakest.decoder),
              box: boxOf(weakest.decoder),
              volt: weakest.volt_V.toFixed(2),
              minimum: weakest.minimum_V,
            })
          }}
        </p>
        <p v-if="running.length === 0 && path.system?.idle === 'dead'" class="quiet">{{ t('twoWire.dead') }}</p>
        <p>
          {{ t('twoWire.line', { amps: current.line_A.toFixed(3), volt: current.terminal_V.toFixed(2) }) }}
          <strong v-if="most_A !== null && current.line_A > most_A" class="fault">
            {{ t('twoWire.lineMost', { most: most_A }) }}
          </strong>
          <span v-if="under === 'worst'" class="quiet">
            {{
              t('twoWire.worstHow', {
                mains: Math.round(sizing.mainsLow_ratio * 100),
                ground: temperatureText(sizing.hottest_C, site.settings.units),
              })
            }}
          </span>
        </p>
        <section v-if="current.coils.length > 0" class="sheet">
          <h2>{{ t('twoWire.coilsOn') }}</h2>
          <FigureList :rows="current.coils" :row-key="(c) => c.coil">
            <template #words="{ row: c }">
              <StateMark :state="c.enough ? 'fits' : 'fault'" silent />
              {{ tagOf(c.coil) }}, {{ tagOf(c.decoder) }}
            </template>
            <template #figure="{ row: c }">{{ c.volt_V.toFixed(2) }} V, {{ c.current_A.toFixed(3) }} A</template>
          </FigureList>
        </section>
        <section class="sheet">
          <h2>{{ t('twoWire.decoders') }}</h2>
          <AppTable
            :rows="current.decoders"
            :columns="columns"
            :row-key="(d) => d.decoder"
            :label="t('twoWire.decoders')"
          >
            <template #volts="{ row: d }">
              <StateMark :state="d.enough ? 'fits' : 'fault'" silent />
              {{ d.volt_V.toFixed(2) }} V
            </template>
            <template #decoder="{ row: d }">{{ tagOf(d.decoder) }}</template>
            <template #number="{ row: d }">{{ numbersOf(d.decoder) }}</template>
            <template #box="{ row: d }">
              <NuxtLink :to="`/p/${String($route.params.id)}/boxes/${device(d.decoder).place}`">
                {{ boxOf(d.decoder) }}
              </NuxtLink>
            </template>
            <template #waters="{ row: d }">{{ watersOf(d.decoder) }}</template>
            <template #asImpedance="{ row: d }">{{ (impedance.get(d.decoder) ?? 0).toFixed(2) }} V</template>
          </AppTable>
          <p class="quiet">{{ t('twoWire.loadHow') }}</p>
        </section>
        <div class="pair">
          <section class="sheet">
            <h2>{{ t('twoWire.losses') }}</h2>
            <FigureList :rows="losses" :row-key="(l) => stretchName(l.of)">
              <template #words="{ row: l }">{{ stretchName(l.of) }}</template>
              <template #figure="{ row: l }">{{ l.volt_V.toFixed(2) }} V, {{ l.current_A.toFixed(3) }} A</template>
            </FigureList>
          </section>
          <section class="sheet">
            <h2>{{ t('twoWire.reach') }}</h2>
            <p class="quiet">{{ t('twoWire.reachHow', { count: path.decoders.length }) }}</p>
            <FigureList :rows="reach" :row-key="(r) => gaugeText(r.gauge)">
              <template #words="{ row: r }">{{ gaugeText(r.gauge) }}</template>
              <template #figure="{ row: r }">
                {{ r.reach_m === null ? t('twoWire.nowhere') : lengthText(r.reach_m, site.settings.units) }}
              </template>
            </FigureList>
          </section>
          <section v-if="found!.ways.length > 0" class="sheet">
            <h2>{{ t('twoWire.secondWay') }}</h2>
            <p class="quiet">{{ t('twoWire.secondWayHow') }}</p>
            <FigureList :rows="found!.ways" :row-key="(w) => w.place">
              <template #words="{ row: w }">
                {{
                  t('twoWire.secondWayTo', {
                    place: getOrThrow(site.places, w.place).tag,
                    length: lengthText(w.length_m, site.settings.units),
                    gauge: gaugeText(w.gauge),
                  })
                }}
              </template>
              <template #figure="{ row: w }">{{ w.weakest_V.toFixed(2) }} V, +{{ w.gain_V.toFixed(2) }} V</template>
            </FigureList>
          </section>
        </div>
      </template>
    </template>
  </div>
</template>

<style scoped>
.asks,
.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 12px 20px;
  align-items: start;
}
</style>
