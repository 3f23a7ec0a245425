<script setup lang="ts">
import { whereIs } from '../../../core/map'
import { earthsOf, rodsOf, rodSpot, type RodClear } from '../../../core/path'
import { lengthText } from '../../../core/quantity'
import { byTag, entries, getOrThrow, setField, type DeviceId, type PathAt } from '../../../core/site'
import { usePathPage } from '../../composables/usePath'
import { towards } from '../../lib/bearing'
import { authorName } from '../../lib/device'
import { figureIn } from '../../lib/figures'

/** Rods and plates: what they read over the years, and whether the path stays clear of them. */
const props = defineProps<{ path: PathAt }>()
const { property, site, t, doing, fixed } = usePathPage()
const metres = (length_m: number) => lengthText(length_m, site.value.settings.units)
const rods = computed(() =>
  entries(site.value.devices)
    .filter(([, d]) => d.kind === 'rod' || d.kind === 'plate')
    .map(([id, d]) => ({ id, tag: d.tag ?? id, box: getOrThrow(site.value.places, d.place).tag }))
    .sort((a, b) => byTag(a.tag, b.tag)),
)
const earths = computed(() =>
  props.path.system ? earthsOf(property.facts!, props.path.system.surge) : new Map<DeviceId, never>(),
)
const states = { good: 'fits', passes: 'doubtful', fails: 'fault' } as const
const day = (at: string) => at.slice(0, 10)

const [rod, ohms, bad] = [ref<DeviceId | null>(null), ref(''), ref('')]
const soil = ref<'dry' | 'moist' | 'wet'>('dry')
const how = ref<'unbonded' | 'clamp'>('unbonded')
const chosen = computed(() => rod.value ?? rods.value[0]?.id ?? null)
async function keepReading(): Promise<void> {
  const ohm = figureIn(ohms.value, 0, 100_000)
  bad.value = ohm === null ? t('twoWire.badOhms') : ''
  if (ohm === null || chosen.value === null) return
  await property.record({
    kind: 'earthReading',
    fact: {
      at: new Date().toISOString(),
      author: authorName(),
      earthed: { kind: 'read', of: chosen.value, ohm, soil: soil.value, how: how.value, instrument: '' },
    },
  })
  ohms.value = ''
}

const clears = computed(() => new Map(rodsOf(site.value, props.path).map((r) => [r.rod, r])))
const clearStates = { clear: 'fits', too_near: 'fault', unknown: 'doubtful' } as const
const sayClear = (r: RodClear) => {
  const params = { clear: metres(r.clear_m ?? 0), long: metres(r.long_m) }
  return t({ clear: 'twoWire.rodClear', too_near: 'twoWire.rodNear', unknown: 'twoWire.rodUnknown' }[r.verdict], params)
}
const spotOf = (r: RodClear) => rodSpot(site.value, props.path, r.place, r.long_m)
const saySpot = (r: RodClear) => {
  const [spot, home] = [spotOf(r), whereIs(getOrThrow(site.value.places, r.place))]
  if (!home) return ''
  return spot
    ? t('twoWire.rodSpot', {
        away: metres(spot.away_m),
        bearing: t(`twoWire.compass.${towards(home, spot.at).direction}`),
      })
    : t('twoWire.rodNoSpot')
}
const stands = (r: RodClear) => {
  const spot = spotOf(r)
  if (!spot) return
  const [x_m, y_m] = [spot.at.x_m, spot.at.y_m].map((m) => Math.round(m * 100) / 100)
  doing({ ok: true, value: [setField('devices', r.rod, 'stands', { x_m: x_m!, y_m: y_m! })] })
}
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('twoWire.earths') }}</h2>
    <p v-if="rods.length === 0">{{ t('twoWire.noEarths') }}</p>
    <dl class="earths">
      <div v-for="r in rods" :key="r.id">
        <dt>{{ r.tag }}, {{ r.box }}</dt>
        <dd>
          <template v-if="earths.get(r.id)">
            <span v-for="e in earths.get(r.id)!.readings.slice(-3)" :key="e.id" class="read">
              <StateMark :state="states[e.verdict]" silent />
              <span class="figure">{{ e.ohm }} Ω</span>
              {{ t(`twoWire.verdicts.${e.verdict}`) }}, {{ t(`twoWire.soils.${e.soil}`) }}, {{ day(e.at) }}
            </span>
            <span v-if="earths.get(r.id)!.drift_ohmPerYear !== null" class="quiet">
              {{ t('twoWire.drift', { drift: earths.get(r.id)!.drift_ohmPerYear!.toFixed(1) }) }}
            </span>
          </template>
          <span v-else class="quiet">–</span>
          <span v-if="clears.get(r.id)" class="read">
            <StateMark :state="clearStates[clears.get(r.id)!.verdict]" silent />
            {{ sayClear(clears.get(r.id)!) }}
            <template v-if="clears.get(r.id)!.verdict !== 'clear'">{{ saySpot(clears.get(r.id)!) }}</template>
            <AppButton
              v-if="clears.get(r.id)!.at === null && spotOf(clears.get(r.id)!) && !fixed"
              look="plain"
              class="slim"
              :aria-label="`${r.tag}: ${t('twoWire.rodStands')}`"
              @click="stands(clears.get(r.id)!)"
            >
              {{ t('twoWire.rodStands') }}
            </AppButton>
          </span>
        </dd>
      </div>
    </dl>
    <form v-if="chosen && !fixed" class="stack" novalidate @submit.prevent="keepReading">
      <h3>{{ t('twoWire.newReading') }}</h3>
      <p class="quiet">{{ t('twoWire.readingHow') }}</p>
      <div class="asks">
        <PickOne
          :model-value="chosen"
          :label="t('twoWire.rod')"
          :options="rods.map((r) => ({ value: r.id, label: `${r.tag}, ${r.box}` }))"
          @update:model-value="rod = $event"
        />
        <div class="field">
          <label for="earth-ohms">{{ t('twoWire.ohms') }}</label>
          <TextField id="earth-ohms" v-model="ohms" inputmode="decimal" />
        </div>
        <PickOne
          v-model="soil"
          :label="t('twoWire.soil')"
          :options="(['dry', 'moist', 'wet'] as const).map((value) => ({ value, label: t(`twoWire.soils.${value}`) }))"
        />
        <PickOne
          v-model="how"
          :label="t('twoWire.howRead')"
          :options="(['unbonded', 'clamp'] as const).map((value) => ({ value, label: t(`twoWire.hows.${value}`) }))"
        />
      </div>
      <p v-if="bad" class="fault" role="alert">{{ bad }}</p>
      <div class="row">
        <AppButton type="submit">{{ t('twoWire.keep') }}</AppButton>
      </div>
    </form>
  </section>
</template>

<style scoped>
.earths > div {
  display: grid;
  grid-template-columns: minmax(90px, 140px) 1fr;
  gap: 4px 12px;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
.read {
  display: block;
}
.asks {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(160px, 1fr));
  gap: 12px;
  align-items: end;
}
</style>
