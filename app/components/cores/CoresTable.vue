<script setup lang="ts">
import type { CoresWork } from '../../composables/useCores'

/** Which end is which, as far as it is known: the first end’s cores in their order, and where each comes out. */
const props = defineProps<{ work: CoresWork }>()
const { t, session, sorting, coreName, placeName } = props.work
const rows = computed(() => {
  const { named, broken, touching } = session.value!.found
  return Array.from({ length: sorting.value!.cores }, (_, first) => {
    const mate = named.find((m) => m.first === first)
    const cut = broken.find((b) => b.first === first)
    const state = cut ? 'fault' : touching?.first.includes(first) ? 'doubtful' : mate ? 'fits' : 'none'
    const there = cut
      ? cut.second === null
        ? t('cores.isBrokenThere')
        : `${coreName('second', cut.second)}, ${t('cores.isBroken')}`
      : mate
        ? coreName('second', mate.second)
        : touching?.first.includes(first)
          ? `${touching.second.map((e) => coreName('second', e)).join(' / ')}, ${t('cores.isTouching')}`
          : t('cores.open')
    return { first, state, there } as const
  })
})
</script>

<template>
  <AppTable
    :rows="rows"
    :row-key="(row) => String(row.first)"
    :label="t('cores.found')"
    :columns="[
      { key: 'first', header: t('cores.first', { place: placeName('first') }) },
      { key: 'there', header: t('cores.second', { place: placeName('second') }) },
    ]"
  >
    <template #first="{ row }">{{ coreName('first', row.first) }}</template>
    <template #there="{ row }">
      <StateMark :state="row.state" silent />
      {{ row.there }}
    </template>
  </AppTable>
</template>
