<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { writeCsv } from '../../core/formats'
import { failuresEn } from '../../words/failures-en'
import { rulesEn } from '../../words/rules-en'
import { useTuning } from '../composables/useTuning'
import { fetchFailures, type Failures } from '../lib/failures'
import { saveText } from '../lib/save'
import type { TableColumn } from '../lib/table'

/** What fails how often over all properties of the company, and whether hunts go by it. */
const { t, n, mergeLocaleMessage } = useI18n({ useScope: 'global' })
mergeLocaleMessage('en', { ...failuresEn, connector: rulesEn.connector })
useHead({ title: () => `${t('failures.title')} · ${t('app.name')}` })

const seen = shallowRef<Failures | null>(null)
const unreachable = ref(false)
const { tuning, tune } = useTuning()
async function load(): Promise<void> {
  const reply = await fetchFailures()
  unreachable.value = reply.kind !== 'ok'
  if (reply.kind === 'ok') seen.value = reply.value
}
onMounted(load)

type Part = keyof Failures['rates']
type Rate = Failures['rates'][Part]['kinds'][number]
const PARTS: readonly Part[] = ['joint', 'coil']
const BY = ['kinds', 'ages'] as const
type By = (typeof BY)[number]

const columns = (by: By): TableColumn<Rate>[] => [
  { key: 'of', header: t(by === 'kinds' ? 'failures.of' : 'failures.age') },
  { key: 'now', header: t('failures.now'), figure: true, sort: (r) => r.now },
  { key: 'years', header: t('failures.years'), figure: true, sort: (r) => r.years },
  { key: 'failed', header: t('failures.failed'), figure: true, sort: (r) => r.failed },
  { key: 'foundBad', header: t('failures.foundBad'), figure: true, sort: (r) => r.foundBad },
  { key: 'perYear', header: t('failures.perYear'), figure: true, sort: (r) => r.perYear?.mean ?? -1 },
  { key: 'ours', header: t('failures.weight'), figure: true },
  { key: 'own', header: t('failures.own'), figure: true },
]
function nameOf(part: Part, by: By, of: string): string {
  if (by === 'ages') return t(`ageBand.${of}`)
  if (of === '') return t('failures.unknownKind')
  return part === 'joint' ? t(`connector.${of}`) : of
}
/** What the odds multiply a part of a kind or an age by; 1 where they name none. */
function weightOf(odds: Failures['odds']['own'], part: Part, by: By, of: string): string {
  const weights = by === 'ages' ? odds.ages[part] : part === 'joint' ? odds.connector : odds.coilKinds
  const weight = weights[by === 'kinds' && part === 'joint' && of === '' ? 'unknown' : of] ?? 1
  return t('failures.times', { weight: n(weight, { maximumSignificantDigits: 3 }) })
}
const years = (of: number) => n(of, { maximumFractionDigits: of < 10 ? 1 : 0 })
const perCent = (of: number) => n(100 * of, { maximumSignificantDigits: 3 })
function rateText({ perYear }: Rate): string {
  return perYear === null
    ? '–'
    : t('failures.rate', { mean: perCent(perYear.mean), low: perCent(perYear.low), high: perCent(perYear.high) })
}

/** Families by their share of all odds, in percent, ours beside theirs. */
const families = computed(() => {
  const { usual, own } = seen.value!.odds
  const share = (of: Readonly<Record<string, number>>, family: string) =>
    (100 * of[family]!) / Object.values(of).reduce((sum, w) => sum + w, 0)
  return Object.keys(usual.families).map((family) => ({
    family,
    ours: share(usual.families, family),
    own: share(own.families, family),
  }))
})
type Family = (typeof families)['value'][number]
const familyColumns = computed((): TableColumn<Family>[] => [
  { key: 'family', header: t('failures.family') },
  { key: 'ours', header: t('failures.weight'), figure: true },
  { key: 'own', header: t('failures.own'), figure: true },
])
const named = computed(() => Object.values(seen.value!.found).reduce((sum, count) => sum + count, 0))

function save(): void {
  const head = ['part', 'by', 'of', 'now', 'years', 'failed', 'found_bad', 'per_year', 'low_95', 'high_95']
  const rows = PARTS.flatMap((part) =>
    BY.flatMap((by) =>
      seen.value!.rates[part][by].map((r) => [
        ...[part, by, r.of, r.now, r.years, r.failed, r.foundBad],
        ...[r.perYear?.mean ?? '', r.perYear?.low ?? '', r.perYear?.high ?? ''],
      ]),
    ),
  )
  saveText('failures.csv', writeCsv([head, ...rows]), 'text/csv')
}
</script>

<template>
  <PlainPage wide>
    <div class="row title">
      <h1>{{ t('failures.title') }}</h1>
      <AppButton v-if="seen" @click="save">{{ t('failures.csv') }}</AppButton>
    </div>
    <p class="quiet">{{ t('failures.how') }} {{ t('failures.interval') }}</p>
    <p v-if="unreachable" class="sheet row" role="alert">
      {{ t('failures.nobody') }}
      <AppButton @click="load()">{{ t('app.retry') }}</AppButton>
    </p>
    <p v-else-if="!seen" class="quiet">{{ t('app.loading') }}</p>
    <template v-if="seen">
      <section v-for="part in PARTS" :key="part" class="sheet stack">
        <h2>{{ t(`failures.${part}`) }}</h2>
        <p v-if="seen.rates[part].kinds.length === 0" class="quiet">{{ t('failures.none') }}</p>
        <template v-for="by in BY" v-else :key="by">
          <h3>{{ t(`failures.${by}`) }}</h3>
          <AppTable
            :rows="seen.rates[part][by]"
            :columns="columns(by)"
            :row-key="(r) => r.of"
            :label="`${t(`failures.${part}`)}, ${t(`failures.${by}`)}`"
          >
            <template #of="{ row }">{{ nameOf(part, by, row.of) }}</template>
            <template #now="{ row }">{{ n(row.now) }}</template>
            <template #years="{ row }">{{ years(row.years) }}</template>
            <template #failed="{ row }">{{ n(row.failed) }}</template>
            <template #foundBad="{ row }">{{ n(row.foundBad) }}</template>
            <template #perYear="{ row }">{{ rateText(row) }}</template>
            <template #ours="{ row }">{{ weightOf(seen.odds.usual, part, by, row.of) }}</template>
            <template #own="{ row }">{{ weightOf(seen.odds.own, part, by, row.of) }}</template>
          </AppTable>
        </template>
      </section>
      <section class="sheet stack">
        <h2>{{ t('failures.families') }}</h2>
        <p class="quiet">{{ t('failures.familiesHow') }} {{ t('failures.found', named) }}</p>
        <AppTable :rows="families" :columns="familyColumns" :row-key="(f) => f.family" :label="t('failures.families')">
          <template #family="{ row }">{{ t(`troubleFamily.${row.family}`) }}</template>
          <template #ours="{ row }">
            {{ t('failures.share', { share: n(row.ours, { maximumFractionDigits: 1 }) }) }}
          </template>
          <template #own="{ row }">
            {{ t('failures.share', { share: n(row.own, { maximumFractionDigits: 1 }) }) }}
          </template>
        </AppTable>
        <TickBox :model-value="tuning.odds" @update:model-value="tune({ odds: $event })">
          {{ t('failures.adopt') }}
        </TickBox>
        <p class="quiet">{{ t('failures.adoptHow') }}</p>
      </section>
    </template>
  </PlainPage>
</template>

<style scoped>
.title {
  justify-content: space-between;
}
h3 {
  font-size: 15px;
}
</style>
