<script setup lang="ts">
import { materialSheets, writeMaterialCsv } from '../../../../../core/formats'
import { gaugeText, inUnit, lengthText, parseGauge, toMetres, type Gauge } from '../../../../../core/quantity'
import { copperCents_per_m, stockOf } from '../../../../../core/sizing'
import { getOrThrow, type Settings } from '../../../../../core/site'
import {
  cableLengths,
  conductorCounts,
  connectorCounts,
  deviceCounts,
  spoolPlans,
  spoolsOf,
  type Ware,
} from '../../../../../core/takeoff'
import { useCableName } from '../../../../composables/useCableName'
import { unbroken, useSpeaker } from '../../../../composables/useSpeaker'
import { figureIn } from '../../../../lib/figures'
import { saveBlob, saveText } from '../../../../lib/save'
import { useProperty } from '../../../../stores/property'

const property = useProperty()
const site = computed(() => property.site!)
const units = computed(() => site.value.settings.units)
const { t } = useSpeaker(() => units.value)
const cables = computed(() => cableLengths(site.value))
const spools = computed(() => spoolPlans(site.value))
const [connectors, conductors, devices] = [
  computed(() => connectorCounts(site.value)),
  computed(() => conductorCounts(site.value)),
  computed(() => deviceCounts(site.value)),
]
const long = (m: number) => unbroken(lengthText(m, units.value))
const tag = (place: string) => getOrThrow(site.value.places, place).tag
const nameOf = useCableName(() => site.value)
const size = (gauge: Gauge | null) => (gauge ? gaugeText(gauge) : t('plan.unknown'))
const wareText = (w: Ware) =>
  [t(`plan.kinds.${w.kind}`), w.kind === 'single' ? null : t('material.coreCount', w.cores), size(w.gauge), w.colour]
    .filter((s) => s !== null)
    .join(', ')

const material = computed(() => site.value.settings.material)
const store = (more: Partial<Settings['material']>) =>
  property.change([{ do: 'setSetting', field: 'material', value: { ...material.value, ...more } }])
const bad = ref<Record<string, string>>({})
const say = (key: string, sentence: string | null) => {
  const { [key]: _was, ...rest } = bad.value
  bad.value = sentence === null ? rest : { ...rest, [key]: sentence }
}
const fields = computed(() => [
  {
    key: 'slack',
    label: `${t('material.slack')}, ${units.value.length}`,
    why: t('material.why.slack'),
    shown: figure(inUnit(material.value.slackPerEnd_m, units.value.length)),
    high: inUnit(20, units.value.length),
    save: (v: number) => store({ slackPerEnd_m: toMetres(v, units.value.length) }),
  },
  {
    key: 'expansion',
    label: t('material.expansion'),
    why: t('material.why.expansion'),
    shown: figure(material.value.expansion_ratio * 100),
    high: 50,
    save: (v: number) => store({ expansion_ratio: v / 100 }),
  },
  {
    key: 'reserve',
    label: t('material.reserve'),
    why: t('material.why.reserve'),
    shown: figure(material.value.reserve_ratio * 100),
    high: 100,
    save: (v: number) => store({ reserve_ratio: v / 100 }),
  },
])
const figure = (v: number) => String(Math.round(v * 100) / 100)
async function keep(f: (typeof fields.value)[number], text: string): Promise<void> {
  const value = figureIn(text, 0, f.high)
  say(f.key, value === null ? t('test.bad.number', { field: f.label, low: 0, high: Math.round(f.high) }) : null)
  if (value !== null && text.trim() !== f.shown) await f.save(value)
}
const spoolText = computed(() =>
  spoolsOf(site.value)
    .map((m) => figure(inUnit(m, units.value.length)))
    .join(', '),
)
async function keepSpools(text: string): Promise<void> {
  const lengths =
    text.trim() === ''
      ? []
      : text
          .split(/[,;\s]+/)
          .filter((s) => s !== '')
          .map((s) => figureIn(s, 1, 10_000))
  say('spools', lengths.includes(null) || lengths.length > 8 ? t('material.badSpools') : null)
  if (!lengths.includes(null) && lengths.length <= 8 && text.trim() !== spoolText.value)
    await store({ spools_m: (lengths as number[]).map((v) => toMetres(v, units.value.length)) })
}
/** Prices by the length that the property is read in: a line a size, as `1.5 mm² 16.1`. */
const perUnit = (cents_per_m: number) => (cents_per_m * toMetres(1, units.value.length)) / 100
const stockText = computed(() =>
  stockOf(site.value)
    .map((s) => `${gaugeText(s.gauge)}  ${perUnit(s.cents_per_m).toFixed(3)}`)
    .join('\n'),
)
/** What is typed, until it is taken: a page drawn again meanwhile does not take it away. */
const stockDraft = ref<string | null>(null)
async function keepStock(text: string): Promise<void> {
  if (text.trim() === stockText.value) {
    stockDraft.value = null
    return
  }
  const lines = text
    .split('\n')
    .map((l) => l.trim())
    .filter((l) => l !== '')
  const stock = lines.map((l) => {
    const m = /^(.*?)\s+([\d.,]+)$/.exec(l)
    const gauge = parseGauge(m ? m[1]! : l, site.value.settings.market)
    const price = m && gauge ? figureIn(m[2]!, 0.0001, 10_000) : null
    return gauge && (price !== null || !m)
      ? {
          gauge,
          cents_per_m:
            price === null
              ? copperCents_per_m(gauge)
              : Math.round((price * 100 * 1000) / toMetres(1, units.value.length)) / 1000,
        }
      : null
  })
  say('stock', stock.includes(null) || stock.length > 12 ? t('material.badStock') : null)
  if (stock.includes(null) || stock.length > 12) return
  stockDraft.value = null
  await store({ stock: stock as Settings['material']['stock'] })
}
const valueOf = (event: Event) => (event.target as HTMLInputElement).value
const saveCsv = () => saveText(`${site.value.about.name} material.csv`, writeMaterialCsv(site.value), 'text/csv')
const saving = ref(false)
async function saveXlsx(): Promise<void> {
  saving.value = true
  const { default: writeExcelFile } = await import('write-excel-file/browser')
  const sheets = materialSheets(site.value).map(({ name, rows }) => ({
    sheet: name,
    data: rows.map((r, i) => r.map((value) => ({ value, ...(i === 0 ? { fontWeight: 'bold' as const } : {}) }))),
  }))
  saveBlob(`${site.value.about.name} material.xlsx`, await writeExcelFile(sheets).toBlob())
  saving.value = false
}
</script>

<template>
  <div class="stack">
    <div class="row title">
      <h1>{{ t('material.title') }}</h1>
      <span class="row no-print">
        <button type="button" class="button" @click="saveCsv">{{ t('material.csv') }}</button>
        <button type="button" class="button" :disabled="saving" @click="saveXlsx">{{ t('material.xlsx') }}</button>
      </span>
    </div>
    <p v-if="cables.length === 0" class="sheet row">
      {{ t('material.none') }}
      <NuxtLink class="button primary" :to="`/p/${$route.params.id}/plan`">{{ t('plan.begin') }}</NuxtLink>
    </p>
    <div v-else class="columns">
      <div class="stack">
        <section class="sheet stack">
          <h2>{{ t('material.spools') }}</h2>
          <p class="quiet small">{{ t('material.spoolsHow') }}</p>
          <article v-for="p in spools" :key="p.ware.key" class="ware">
            <h3>{{ wareText(p.ware) }}</h3>
            <p class="quiet">
              {{ t('material.bought', { needed: long(p.needed_m), bought: long(p.bought_m) }) }}
              {{
                p.bound_m >= p.bought_m - 0.05 ? t('material.optimum') : t('material.bound', { bound: long(p.bound_m) })
              }}
              <template v-if="p.joints > 0">
                <strong class="doubtful">{{ t('material.joints', p.joints) }}</strong>
              </template>
            </p>
            <p v-for="pull in p.tooLong" :key="`${pull.cable} ${pull.from}`" class="fault">
              {{
                t('material.tooLong', {
                  cable: nameOf(pull.cable),
                  from: tag(pull.from),
                  to: tag(pull.to),
                  length: long(pull.length_m),
                })
              }}
            </p>
            <ul>
              <li v-for="(s, i) in p.spools" :key="i" class="spool">
                <span class="figure of">{{ long(s.length_m) }}</span>
                <span
                  class="reel"
                  :style="{
                    width: `${(s.length_m / Math.max(...spools.flatMap((q) => q.spools.map((r) => r.length_m)))) * 100}%`,
                  }"
                >
                  <span
                    v-for="(pull, k) in s.pulls"
                    :key="k"
                    class="pull"
                    :style="{ width: `${(pull.length_m / s.length_m) * 100}%` }"
                    :title="`${nameOf(pull.cable)}, ${tag(pull.from)}–${tag(pull.to)}, ${long(pull.length_m)}`"
                  >
                    {{ nameOf(pull.cable) }}
                  </span>
                </span>
                <span class="quiet cuts">
                  {{
                    s.pulls
                      .map((pull) => `${nameOf(pull.cable)} ${tag(pull.from)}–${tag(pull.to)} ${long(pull.length_m)}`)
                      .join(' · ')
                  }}
                  · {{ t('material.left', { left: long(s.left_m) }) }}
                </span>
              </li>
            </ul>
          </article>
        </section>
        <section class="sheet scroll" tabindex="0" :aria-label="t('material.cables')">
          <h2>{{ t('material.cables') }}</h2>
          <table class="table">
            <thead>
              <tr>
                <th scope="col">{{ t('plan.cell.cable') }}</th>
                <th scope="col">{{ t('plan.way') }}</th>
                <th scope="col">{{ t('material.ware') }}</th>
                <th scope="col">{{ t('material.route') }}</th>
                <th scope="col">{{ t('material.expansionShort') }}</th>
                <th scope="col">{{ t('material.slackShort') }}</th>
                <th scope="col">{{ t('material.order') }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="c in cables" :key="c.cable">
                <td class="figure">{{ nameOf(c.cable) }}</td>
                <td class="figure">{{ tag(c.from) }}–{{ tag(c.to) }}</td>
                <td>{{ wareText(c.ware) }}</td>
                <td class="figure">
                  {{ long(c.route_m) }}
                  <span v-if="c.unknown" class="doubtful">{{ t('material.atMost') }}</span>
                </td>
                <td class="figure">{{ long(c.expansion_m) }}</td>
                <td class="figure">{{ long(c.slack_m) }}</td>
                <td class="figure">
                  <strong>{{ long(c.order_m) }}</strong>
                </td>
              </tr>
            </tbody>
          </table>
        </section>
      </div>
      <div class="stack">
        <section class="sheet stack">
          <h2>{{ t('material.connectors') }}</h2>
          <table class="table">
            <thead>
              <tr>
                <th scope="col">{{ t('material.connector') }}</th>
                <th scope="col">{{ t('material.count') }}</th>
                <th scope="col">{{ t('material.take') }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="c in connectors" :key="`${c.connector} ${c.conductors}`">
                <td>
                  {{
                    t('material.kind', { kind: t(`material.kinds.${c.connector}`), count: c.conductors }, c.conductors)
                  }}
                </td>
                <td class="figure">{{ c.count }}</td>
                <td class="figure">
                  <strong>{{ c.withReserve }}</strong>
                </td>
              </tr>
            </tbody>
          </table>
          <p class="quiet small">{{ t('material.connectorsHow') }}</p>
        </section>
        <section class="sheet stack">
          <h2>{{ t('material.conductors') }}</h2>
          <table class="table">
            <tbody>
              <tr v-for="c in conductors" :key="size(c.gauge)">
                <td class="figure">{{ size(c.gauge) }}</td>
                <td class="figure">{{ long(c.length_m) }}</td>
              </tr>
              <tr v-for="d in devices" :key="`${d.kind} ${d.name}`">
                <td>
                  {{ t(`material.device.${d.kind}`) }}
                  <span v-if="d.name" class="quiet">· {{ d.name }}</span>
                </td>
                <td class="figure">{{ d.count }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <section v-if="!property.viewed" class="sheet stack no-print">
          <h2>{{ t('material.settings') }}</h2>
          <div v-for="f in fields" :key="f.key" class="field">
            <label :for="`m-${f.key}`">{{ f.label }}</label>
            <TextField
              :id="`m-${f.key}`"
              :model-value="f.shown"
              inputmode="decimal"
              :aria-invalid="!!bad[f.key]"
              :aria-describedby="`m-${f.key}-how`"
              @change="keep(f, valueOf($event))"
            />
            <p :id="`m-${f.key}-how`" class="how">{{ f.why }}</p>
            <p v-if="bad[f.key]" class="bad" role="alert">{{ bad[f.key] }}</p>
          </div>
          <div class="field">
            <label for="m-spools">{{ t('material.spoolLengths') }}, {{ units.length }}</label>
            <TextField
              id="m-spools"
              :model-value="spoolText"
              :aria-invalid="!!bad.spools"
              @change="keepSpools(valueOf($event))"
            />
            <p v-if="bad.spools" class="bad" role="alert">{{ bad.spools }}</p>
          </div>
          <div class="field">
            <label for="m-stock">{{ t('material.stock', { unit: units.length }) }}</label>
            <textarea
              id="m-stock"
              class="input figure"
              rows="6"
              spellcheck="false"
              :value="stockDraft ?? stockText"
              @input="stockDraft = ($event.target as HTMLTextAreaElement).value"
              :aria-invalid="!!bad.stock"
              @change="keepStock(($event.target as HTMLTextAreaElement).value)"
            />
            <p class="how">{{ t('material.stockHow') }}</p>
            <p v-if="bad.stock" class="bad" role="alert">{{ bad.stock }}</p>
          </div>
        </section>
      </div>
    </div>
  </div>
</template>

<style scoped>
.title {
  justify-content: space-between;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(300px, 1fr);
  gap: 16px;
  align-items: start;
}
.scroll {
  overflow-x: auto;
}
.ware {
  display: grid;
  gap: 4px;
}
.ware + .ware {
  border-top: 1px solid var(--rule);
  padding-top: 12px;
}
.spool {
  display: grid;
  grid-template-columns: 64px 1fr;
  column-gap: 8px;
  align-items: center;
  padding: 4px 0;
}
.reel {
  display: flex;
  height: 26px;
  border: 1px solid var(--quiet);
  border-radius: 4px;
  overflow: hidden;
  background: repeating-linear-gradient(135deg, transparent 0 5px, var(--rule) 5px 6px);
}
.pull {
  background: var(--copper-soft);
  border-right: 1px solid var(--copper);
  font-size: 12px;
  padding: 3px 5px;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  min-width: 2px;
}
.cuts {
  grid-column: 2;
  font-size: 13px;
}
.small {
  font-size: 13px;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 759px) {
  .small,
  .cuts {
    font-size: 15px;
  }
}
</style>
