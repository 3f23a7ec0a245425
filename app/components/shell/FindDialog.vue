<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { dialogsEn } from '../../../words/dialogs-en'
import { byTag, entries, getOrThrow, tagAndName, type Site } from '../../../core/site'

/** Finds any station, box or core, and leads to its thread, or to the box. */
const visible = defineModel<boolean>('visible', { required: true })
const props = defineProps<{ site: Site }>()
const emit = defineEmits<{ go: [target: string | null, place: string | null] }>()
const { t, mergeLocaleMessage } = useI18n({ useScope: 'global' })
mergeLocaleMessage('en', dialogsEn)
const text = ref('')
const MOST = 12

interface Hit {
  kind: 'station' | 'box' | 'core'
  label: string
  target: string | null
  place?: string
}
const all = computed((): Hit[] => {
  const { site } = props
  const stationAt = (terminal: string, controller: string) => {
    const { tag, terminals } = getOrThrow(site.controllers, controller)
    return `${tag}:${getOrThrow(terminals, terminal).tag}`
  }
  const stations = entries(site.stations)
    .map(([, s]): Hit & { target: string; devices: readonly string[]; terminal: string } => {
      const target = stationAt(s.terminal, s.controller)
      return { kind: 'station', label: `${target} ${s.name}`, target, devices: s.valves, terminal: s.terminal }
    })
    .sort((a, b) => byTag(a.target, b.target))
  const inBox = (place: string) =>
    stations.find((s) => s.devices.some((d) => getOrThrow(site.devices, d).place === place))
  const boxes = entries(site.places)
    .sort(([, a], [, b]) => byTag(a.tag, b.tag))
    .map(([id, p]): Hit => ({
      kind: 'box',
      label: tagAndName(p),
      target: inBox(id)?.target ?? null,
      place: id,
    }))
  const landed = entries(site.splices).flatMap(([, splice]) => {
    const terminal = splice.ends.find((e) => e.kind === 'terminal')
    return terminal?.kind === 'terminal'
      ? splice.ends.flatMap((e) =>
          e.kind === 'core' ? [{ core: e, target: stationAt(terminal.terminal, terminal.controller) }] : [],
        )
      : []
  })
  const cores = landed.map(({ core, target }): Hit => {
    const cable = site.cables[core.cable]!
    return {
      kind: 'core',
      label: `${cable.name || cable.tag || core.cable}, ${cable.cores[core.core]!.colour?.value ?? core.core}`,
      target,
    }
  })
  return [...stations, ...boxes, ...cores]
})
const hits = computed(() => {
  const words = text.value.toLowerCase().split(/\s+/).filter(Boolean)
  return all.value.filter((h) => words.every((w) => h.label.toLowerCase().includes(w))).slice(0, MOST)
})
watch(visible, (now) => {
  if (now) text.value = ''
})
function go(hit: Hit | undefined): void {
  if (!hit) return
  visible.value = false
  emit('go', hit.target, hit.place ?? null)
}
</script>

<template>
  <AppDialog v-model:visible="visible" :title="t('find.title')">
    <form class="stack" @submit.prevent="go(hits[0])">
      <TextField
        v-model="text"
        :aria-label="t('find.title')"
        :placeholder="t('find.hint')"
        autofocus
        autocomplete="off"
      />
      <p v-if="hits.length === 0" class="quiet">{{ t('find.none') }}</p>
      <ul>
        <li v-for="hit in hits" :key="`${hit.kind} ${hit.label} ${hit.target}`">
          <AppButton look="bare" class="hit" @click="go(hit)">
            <span>{{ hit.label }}</span>
            <span class="quiet">{{ t(`find.${hit.kind}`) }}</span>
          </AppButton>
        </li>
      </ul>
    </form>
  </AppDialog>
</template>

<style scoped>
.hit {
  display: flex;
  justify-content: space-between;
  width: 100%;
  min-height: 40px;
  align-items: center;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: none;
  text-align: left;
  cursor: pointer;
}
.hit:hover,
.hit:focus-visible {
  background: var(--copper-soft);
}
</style>
