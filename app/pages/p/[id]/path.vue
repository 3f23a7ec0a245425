<script setup lang="ts">
import { byTag, getOrThrow, pathsOf, type ControllerId } from '../../../../core/site'
import { usePathPage } from '../../../composables/usePath'

/**
 * The two-wire path of a controller: its volts, its plan, its register, its arrestors, a cable that could become one.
 */
const { site, t, fixed } = usePathPage()
const route = useRoute()
const router = useRouter()
const TABS = ['volts', 'find', 'sizes', 'plan', 'register', 'surge', 'convert', 'system'] as const
type Tab = (typeof TABS)[number]

const tagOf = (id: ControllerId) => getOrThrow(site.value.controllers, id).tag
const paths = computed(() => [...pathsOf(site.value)].sort((a, b) => byTag(tagOf(a.controller), tagOf(b.controller))))
const path = computed(() => paths.value.find((p) => p.controller === route.query.controller) ?? paths.value[0] ?? null)
const show = (query: { controller?: string; show?: Tab }) => router.replace({ query: { ...route.query, ...query } })
const tab = computed({
  get: (): Tab => {
    const asked = TABS.find((name) => name === route.query.show)
    return asked ?? (path.value?.decoders.length === 0 ? 'plan' : 'volts')
  },
  set: (name: Tab) => void show({ show: name }),
})
/** What there is to do before anything hangs on a path. */
const BEGINS: readonly Tab[] = ['plan', 'convert', 'system']
const named = (id: ControllerId) => {
  const { tag, name } = getOrThrow(site.value.controllers, id)
  return name === tag || name === '' ? tag : `${tag} ${name}`
}
</script>

<template>
  <div class="stack">
    <div class="row top">
      <h1>{{ t('twoWire.title') }}</h1>
      <PickBar
        v-if="path && paths.length > 1"
        :model-value="path.controller"
        :label="t('twoWire.controller')"
        :options="paths.map((p) => ({ value: p.controller, label: named(p.controller) }))"
        @update:model-value="show({ controller: $event })"
      />
      <span v-else-if="path" class="quiet">{{ named(path.controller) }}</span>
    </div>
    <template v-if="path">
      <PickBar
        v-model="tab"
        :label="t('twoWire.title')"
        :options="TABS.map((value) => ({ value, label: t(`twoWire.tabs.${value}`) }))"
      />
      <p v-if="path.decoders.length === 0 && !BEGINS.includes(tab)" class="sheet row">
        {{ t('twoWire.empty') }}
        <AppButton look="primary" @click="tab = 'plan'">{{ t('twoWire.emptyDo') }}</AppButton>
      </p>
      <PathVolts v-else-if="tab === 'volts'" :key="path.controller" :path="path" />
      <PathFind v-else-if="tab === 'find'" :key="path.controller" :path="path" />
      <PathSizes v-else-if="tab === 'sizes'" :key="path.controller" :path="path" />
      <PathPlan v-else-if="tab === 'plan'" :path="path" />
      <PathRegister v-else-if="tab === 'register'" :path="path" />
      <PathSurge v-else-if="tab === 'surge'" :path="path" />
      <PathConvert v-else-if="tab === 'convert'" :path="path" />
      <template v-else>
        <PathAids :path="path" />
        <PathChange :path="path" />
        <PathSystem :path="path" />
      </template>
    </template>
    <p v-else class="sheet">{{ t('twoWire.none') }}</p>
    <PathBegin v-if="!fixed && (!path || tab === 'system')" />
  </div>
</template>

<style scoped>
.top {
  align-items: center;
}
</style>
