<script setup lang="ts">
import { arrestorCommands, arrestorsOf, earthsOf, layoutOf, type SurgeBreach } from '../../../core/path'
import { lengthText } from '../../../core/quantity'
import { byTag, entries, getOrThrow, type DeviceId, type PathAt, type PlaceId } from '../../../core/site'
import { usePathPage } from '../../composables/usePath'
import { authorName } from '../../lib/device'
import { figureIn } from '../../lib/figures'

/** Where surges go into the ground: the fewest arrestors that keep the rules, and what the rods read over the years. */
const props = defineProps<{ path: PathAt }>()
const { property, site, t, doing, fixed } = usePathPage()
const units = computed(() => site.value.settings.units)
const metres = (length_m: number) => lengthText(length_m, units.value)
const known = computed(() => (props.path.system ? { ...props.path, system: props.path.system } : null))
const found = computed(() => (known.value ? arrestorsOf(site.value, known.value) : null))
const tags = (places: readonly PlaceId[]) =>
  places
    .map((p) => getOrThrow(site.value.places, p).tag)
    .sort(byTag)
    .join(', ')
const spotTag = (spot: number) => getOrThrow(site.value.places, layoutOf(site.value, props.path).spots[spot]!.place).tag
const whereOf = (b: SurgeBreach) =>
  t(`twoWire.impossibleKinds.${b.kind}`, {
    near: metres(found.value!.rules.near_m),
    ...(b.kind === 'apart' && { a: spotTag(b.a), b: spotTag(b.b), apart: metres(b.apart_m) }),
  })
const put = () =>
  known.value && found.value && doing({ ok: true, value: arrestorCommands(site.value, known.value, found.value.more) })

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
</script>

<template>
  <div class="stack">
    <section v-if="found" class="sheet stack">
      <h2>{{ t('twoWire.surgeTitle') }}</h2>
      <p class="quiet">
        {{
          t('twoWire.rules', {
            near: metres(found.rules.near_m),
            branch: metres(found.rules.branch_m),
            spacing: metres(found.rules.spacing_m),
          })
        }}
      </p>
      <p>
        {{ found.now.length > 0 ? t('twoWire.now', { boxes: tags(found.now) }) : t('twoWire.nowNone') }}
      </p>
      <p v-if="found.more.length > 0">
        <StateMark state="fault" silent />
        {{ t('twoWire.more', { boxes: tags(found.more) }) }}
      </p>
      <p v-else-if="found.breaches.length === 0">
        <StateMark state="fits" silent />
        {{ t('twoWire.kept') }}
      </p>
      <p v-for="(b, i) in found.impossible" :key="i">
        <StateMark state="doubtful" silent />
        {{ t('twoWire.impossible', { where: whereOf(b) }) }}
      </p>
      <p class="quiet">
        {{ t('twoWire.fewest', { count: found.fewest.length, boxes: tags(found.fewest) }) }}
      </p>
      <p class="caution">{{ t('twoWire.drive') }}</p>
      <div v-if="found.more.length > 0 && !fixed" class="row">
        <AppButton look="primary" @click="put">{{ t('twoWire.putArrestors') }}</AppButton>
      </div>
    </section>
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
            :options="
              (['dry', 'moist', 'wet'] as const).map((value) => ({ value, label: t(`twoWire.soils.${value}`) }))
            "
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
  </div>
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
