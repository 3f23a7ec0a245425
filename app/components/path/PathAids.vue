<script setup lang="ts">
import { aidsOf, declareCommands, type Aid } from '../../../core/path'
import { lengthText } from '../../../core/quantity'
import { getOrThrow, type DeviceId, type PathAt } from '../../../core/site'
import { usePathPage } from '../../composables/usePath'
import type { TableColumn } from '../../lib/table'

/** Master valves, pumps and flow sensors of the controller: direct or on the path, and what its set-up has to say. */
const props = defineProps<{ path: PathAt }>()
const { site, t, doing, fixed } = usePathPage()
const aids = computed(() => aidsOf(site.value, props.path))
const tagOf = (id: DeviceId) => getOrThrow(site.value.devices, id).tag ?? id
const metres = (m: number) => lengthText(m, site.value.settings.units)
const pointOf = (a: Aid) => getOrThrow(site.value.pointsOfConnection, a.point).name
const fits = (a: Aid) => a.wired === null || (a.wired === a.declared && a.wired === a.advised)
const why = (a: Aid) =>
  a.reasons
    .map((r) =>
      r.kind === 'out_of_reach'
        ? t('twoWire.aids.why.out_of_reach', { length: metres(r.length_m), reach: metres(r.reach_m) })
        : t(`twoWire.aids.why.${r.kind}`),
    )
    .join(' ')
const setUp = (a: Aid) => {
  const reached = a.wired ?? a.advised
  const number = a.behind?.address ?? null
  return reached === 'path' && number !== null
    ? t('twoWire.aids.byNumber', { number })
    : t(`twoWire.aids.reached.${reached}`)
}
const wrong = computed(() => aids.value.filter((a) => a.wired !== null && a.declared !== a.wired))
const columns = computed<TableColumn<Aid>[]>(() => [
  { key: 'device', header: t('twoWire.aids.device') },
  { key: 'wired', header: t('twoWire.aids.wired') },
  { key: 'setUp', header: t('twoWire.aids.setUp') },
  { key: 'jumper', header: t('twoWire.aids.jumper') },
  { key: 'advised', header: t('twoWire.aids.advised') },
])
const mend = (a: Aid) => doing({ ok: true, value: declareCommands(site.value, a, a.wired!) })
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('twoWire.aids.title') }}</h2>
    <p v-if="aids.length === 0">{{ t('twoWire.aids.none') }}</p>
    <template v-else>
      <AppTable
        :rows="aids"
        :columns="columns"
        :row-key="(a) => `${a.point} ${a.role}`"
        :label="t('twoWire.aids.title')"
      >
        <template #device="{ row: a }">
          <StateMark :state="fits(a) ? 'fits' : 'doubtful'" silent />
          {{ t(`twoWire.aids.roles.${a.role}`) }} {{ tagOf(a.device) }}, {{ pointOf(a) }}
        </template>
        <template #wired="{ row: a }">
          {{ a.wired === null ? '–' : t(`twoWire.aids.reached.${a.wired}`) }}
          <span v-if="a.behind" class="quiet">{{ tagOf(a.behind.decoder) }}</span>
        </template>
        <template #setUp="{ row: a }">{{ setUp(a) }}</template>
        <template #jumper="{ row: a }">{{ t(`twoWire.aids.jumpers.${a.jumper}`) }}</template>
        <template #advised="{ row: a }">
          <strong>{{ t(`twoWire.aids.reached.${a.advised}`) }}.</strong>
          {{ why(a) }}
        </template>
      </AppTable>
      <p v-for="a in wrong" :key="`${a.point} ${a.role}`" class="row">
        <span>
          <StateMark state="fault" silent />
          {{
            t('twoWire.aids.otherwise', {
              device: tagOf(a.device),
              declared: t(`twoWire.aids.reached.${a.declared}`),
              wired: t(`twoWire.aids.reached.${a.wired}`),
            })
          }}
        </span>
        <AppButton v-if="!fixed" @click="mend(a)">{{ t('twoWire.aids.mend') }}</AppButton>
      </p>
    </template>
    <p class="quiet">{{ t('twoWire.aids.how') }}</p>
  </section>
</template>
