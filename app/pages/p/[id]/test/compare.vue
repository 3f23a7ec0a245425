<script setup lang="ts">
import { compareReadings } from '../../../../../core/history'
import { ohmsText, temperatureText } from '../../../../../core/quantity'
import { isOhms, standingReadings, testKey, jobsThatRead } from '../../../../../core/record'
import { useSweep } from '../../../../composables/useSweep'
import { dayText, unbroken, useSpeaker } from '../../../../composables/useSpeaker'
import { useProperty } from '../../../../stores/property'
import type { TableColumn } from '../../../../lib/table'

const route = useRoute()
const property = useProperty()
const { t } = useSpeaker(() => property.site!.settings.units)
useHead({ title: () => `${t('compare.title')} · ${property.site!.about.name}` })
const jobs = computed(() =>
  jobsThatRead(property.facts!)
    .map((id) => ({ id, ...property.facts!.jobs[id]! }))
    .filter((v) => property.site!.controllers[v.controller]),
)
const asked = (name: string) =>
  typeof route.query[name] === 'string' ? (jobs.value.find((v) => v.id === route.query[name]) ?? null) : null
const later = computed(
  () =>
    asked('later') ??
    jobs.value.find((v) => jobs.value.some((w) => w.id !== v.id && w.controller === v.controller)) ??
    null,
)
const others = computed(() =>
  jobs.value.filter((v) => v.controller === later.value?.controller && v.id !== later.value?.id),
)
const earlier = computed(() => {
  const a = asked('earlier')
  return a && others.value.some((v) => v.id === a.id)
    ? a
    : (others.value.find((v) => v.at < later.value!.at) ?? others.value[0] ?? null)
})
const choose = (name: string, id: string) => navigateTo({ query: { ...route.query, [name]: id } }, { replace: true })

const { rows } = useSweep(
  () => later.value?.controller ?? null,
  () => later.value?.id ?? null,
)
const readings = (job: string) =>
  new Map(
    standingReadings(property.facts!, job).flatMap(({ reading }) =>
      isOhms(reading) ? [[testKey(reading.test), reading] as const] : [],
    ),
  )
const compared = computed(() => {
  const [a, b] = [earlier.value, later.value]
  if (!a || !b) return []
  const [before, after] = [readings(a.id), readings(b.id)]
  return rows.value.map((row) => {
    const key = testKey(row.expected.test)
    const [x, y] = [before.get(key), after.get(key)]
    return {
      row,
      result:
        x && y
          ? compareReadings(x, y, property.sceneAt(a.ground_C, a.coil_C), property.sceneAt(b.ground_C, b.coil_C))
          : null,
    }
  })
})
const shown = (ohm: number | null | undefined) => (ohm === undefined ? '' : ohm === null ? 'OL' : ohmsText(ohm))
const signed = (ohm: number) => (Math.abs(ohm) < 0.05 ? '0.0' : `${ohm < 0 ? '−' : '+'}${Math.abs(ohm).toFixed(1)}`)
const columns = computed<TableColumn<(typeof compared.value)[number]>[]>(() => [
  {
    key: 'station',
    header: later.value
      ? `${t('test.controller')} ${property.site!.controllers[later.value.controller]!.tag}`
      : t('test.controller'),
  },
  { key: 'earlier', header: earlier.value ? dayText(earlier.value.at) : '', figure: true, class: 'right' },
  { key: 'later', header: later.value ? dayText(later.value.at) : '', figure: true, class: 'right' },
  {
    key: 'change',
    header: t('compare.change'),
    figure: true,
    sort: ({ result }) => Math.abs(result?.change_ohm ?? 0),
  },
])
</script>

<template>
  <div class="stack page">
    <h1>{{ t('compare.title') }}</h1>
    <p v-if="!earlier || !later" class="sheet">{{ t('compare.none') }}</p>
    <template v-else>
      <div class="two">
        <PickOne
          id="earlier"
          :model-value="earlier.id"
          :label="t('compare.first')"
          :options="others.map((v) => ({ value: v.id, label: `${v.title}, ${dayText(v.at)}` }))"
          @update:model-value="choose('earlier', $event)"
        />
        <PickOne
          id="later"
          :model-value="later.id"
          :label="t('compare.second')"
          :options="
            jobs.map((v) => ({
              value: v.id,
              label: `${property.site!.controllers[v.controller]!.name}: ${v.title}, ${dayText(v.at)}`,
            }))
          "
          @update:model-value="choose('later', $event)"
        />
      </div>
      <p class="quiet">
        {{ t('compare.how', { at_C: unbroken(temperatureText(later.ground_C, property.site!.settings.units)) }) }}
      </p>
      <div class="sheet">
        <AppTable :rows="compared" :columns="columns" :row-key="({ row }) => row.terminal" :label="t('compare.title')">
          <template #station="{ row: { row } }">
            <NuxtLink
              :to="`/p/${route.params.id}?station=${property.site!.controllers[later.controller]!.tag}:${row.tag}`"
            >
              <span class="figure">{{ row.tag }}</span>
              {{ row.name }}
            </NuxtLink>
          </template>
          <template #earlier="{ row: { result } }">{{ result ? shown(result.earlier_ohm) : '' }}</template>
          <template #later="{ row: { result } }">{{ result ? shown(result.later_ohm) : '' }}</template>
          <template #change="{ row: { result } }">
            <span v-if="result" :class="result.state">
              {{ result.change_ohm === null ? '' : signed(result.change_ohm) }}
              <span v-if="result.code === 'opened'">{{ t('compare.opened') }}</span>
              <span v-if="result.code === 'both_open'">{{ t('compare.bothOpen') }}</span>
              <span v-if="result.code === 'closed_again'">{{ t('compare.closedAgain') }}</span>
              {{ ' ' }}
              <StateMark :state="result.state" />
            </span>
            <span v-else class="quiet">{{ t('compare.notBoth') }}</span>
          </template>
        </AppTable>
      </div>
    </template>
  </div>
</template>

<style scoped>
.sheet a {
  color: inherit;
}
.page {
  max-width: 880px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
@media (max-width: 759px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
