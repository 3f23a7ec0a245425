<script setup lang="ts">
import { inUnit, toMetres } from '../../../core/quantity'
import type { Outcome } from '../../../core/refusal'
import { setSetting, usualSettings, type Command, type Settings, type Site } from '../../../core/site'
import { carried, coloursInOrder, limitsOf, type Connector } from '../../../core/splice'
import { useWiringWords } from '../../composables/useWiringWords'
import { valueOf } from '../../lib/fields'

/** How new wiring is planned: growth, reach of a multi-core, colours, and what the van carries. */
const props = defineProps<{
  site: Site
  fixed: boolean
  keep: (outcome: Outcome<Command[]>) => Promise<boolean>
}>()
const { t } = useWiringWords(() => props.site.settings.units)
const wiring = computed(() => props.site.settings.wiring)
const unit = computed(() => props.site.settings.units.length)
const usual = usualSettings().wiring
type Wiring = Settings['wiring']
const set = <F extends keyof Wiring>(field: F, value: Wiring[F]) =>
  void props.keep({ ok: true, value: [setSetting('wiring', { ...wiring.value, [field]: value })] })
const setCommon = (colour: string) => void props.keep({ ok: true, value: [setSetting('commonColour', colour.trim())] })
const setColours = (text: string) =>
  set(
    'colours',
    text
      .split(',')
      .map((c) => c.trim())
      .filter(Boolean),
  )
const inFull = (m: number) => String(Math.round(inUnit(m, unit.value)))

const KINDS = ['gel_crimp_3', 'nut_and_gel_tube', 'gel_nut', 'solder_heatshrink'] as const
const LIMITS = ['most', 'thickest_mm2', 'together_mm2'] as const
const carriedNow = computed(() => carried(props.site.settings))
const carriedOf = (kind: Connector['kind']) => carriedNow.value.find((c) => c.kind === kind)
const carry = (kind: (typeof KINDS)[number], on: boolean) =>
  set(
    'connectors',
    on ? [...carriedNow.value, limitsOf(props.site.settings, kind)!] : carriedNow.value.filter((c) => c.kind !== kind),
  )
const limit = (kind: Connector['kind'], field: (typeof LIMITS)[number], value: number) =>
  set(
    'connectors',
    carriedNow.value.map((c) => (c.kind === kind ? { ...c, [field]: value } : c)),
  )
const limitsText = (c: Connector) =>
  t('wiring.limits', {
    least: c.least,
    most: c.most,
    thin: c.thinnest_mm2,
    thick: c.thickest_mm2,
    together: c.together_mm2,
  })
</script>

<template>
  <details class="sheet">
    <summary>{{ t('wiring.settings') }}</summary>
    <div class="fields">
      <FigureField
        id="w-least"
        :label="t('wiring.sparesLeast')"
        :shown="String(wiring.sparesLeast)"
        :ours="String(usual.sparesLeast)"
        :low="0"
        :high="40"
        whole
        :fixed="fixed"
        @store="set('sparesLeast', $event)"
      />
      <FigureField
        id="w-ratio"
        :label="t('wiring.spares_ratio')"
        :shown="String(wiring.spares_ratio)"
        :ours="String(usual.spares_ratio)"
        :low="0"
        :high="2"
        :fixed="fixed"
        @store="set('spares_ratio', $event)"
      />
      <FigureField
        id="w-far"
        :label="`${t('wiring.multicoreFarthest_m')}, ${unit}`"
        :shown="inFull(wiring.multicoreFarthest_m)"
        :ours="inFull(usual.multicoreFarthest_m)"
        :low="1"
        :high="inUnit(5000, unit)"
        :fixed="fixed"
        @store="set('multicoreFarthest_m', toMetres($event, unit))"
      />
      <FigureField
        id="w-most"
        :label="t('wiring.multicoreMost')"
        :shown="String(wiring.multicoreMost)"
        :ours="String(usual.multicoreMost)"
        :low="1"
        :high="60"
        whole
        :fixed="fixed"
        @store="set('multicoreMost', $event)"
      />
      <div class="field">
        <label for="w-common">{{ t('wiring.commonColour') }}</label>
        <TextField
          id="w-common"
          :model-value="site.settings.commonColour"
          :readonly="fixed"
          @change="setCommon(valueOf($event))"
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
          :model-value="wiring.colours.join(', ')"
          :placeholder="coloursInOrder(site, 11).join(', ')"
          :readonly="fixed"
          @change="setColours(valueOf($event))"
        />
      </div>
    </div>
    <h3>{{ t('wiring.connectors') }}</h3>
    <ul class="kinds">
      <li v-for="k in KINDS" :key="k" class="row">
        <TickBox
          :model-value="carriedOf(k) !== undefined"
          :disabled="fixed || (carriedNow.length === 1 && carriedOf(k) !== undefined)"
          @update:model-value="carry(k, $event)"
        >
          {{ t(`connector.${k}`) }}
        </TickBox>
        <template v-if="carriedOf(k)">
          <FigureField
            v-for="f in LIMITS"
            :id="`w-${k}-${f}`"
            :key="f"
            class="limit"
            :label="t(`wiring.limit.${f}`)"
            :shown="String(carriedOf(k)![f])"
            :low="f === 'most' ? 2 : 0.1"
            :high="f === 'most' ? 12 : 200"
            :whole="f === 'most'"
            :fixed="fixed"
            @store="limit(k, f, $event)"
          />
          <span class="quiet">{{ limitsText(carriedOf(k)!) }}</span>
        </template>
      </li>
    </ul>
  </details>
</template>

<style scoped>
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  padding: 12px 0;
}
.fields > .field {
  flex: 1 1 160px;
  max-width: 220px;
}
.fields > .wide {
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
.kinds > li {
  align-items: end;
}
.limit {
  width: 150px;
}
@media (max-width: 759px) {
  .fields > .field {
    max-width: none;
  }
}
</style>
