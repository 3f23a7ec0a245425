<script setup lang="ts">
import { shipped } from '../../../../../core/procedure'
import { acrossAt, beside, toneOn } from '../../../../../core/trace'
import { sayTitle } from '../../../../../words/procedure'
import { useTrace } from '../../../../composables/useTrace'
import { useVisitToday } from '../../../../composables/useVisitToday'
import { useWand } from '../../../../composables/useWand'
import { useWiringWords } from '../../../../composables/useWiringWords'
import type { MapOverlay } from '../../../../lib/map-overlay'
import type { MapThing } from '../../../../lib/map-view'
import { draftOf, keepDraft } from '../../../../lib/device'
import type { Point } from '../../../../../core/site'

/** A wire that is followed: across it, along it, to a lost box, and into the record, with the map beside. */
const route = useRoute()
const jobId = computed(() => String(route.params.job))
const work = useTrace(() => jobId.value)
const { property, t, speaker, traces, trace, search, finds, flags, probes, name, cableName } = work
useWiringWords(() => property.site!.settings.units)
const wand = useWand(work)
const base = computed(() => `/p/${String(route.params.id)}`)

type Tab = 'box' | 'across' | 'along' | 'line'
const tabs = computed(() =>
  (['box', 'across', 'along', 'line'] as const)
    .filter((tab) => tab !== 'box' || traces.value?.box)
    .map((value) => ({ value: value as Tab, label: t(`trace.tabs.${value}`) })),
)
const tab = ref<Tab>((draftOf(`${jobId.value}.tab`) as Tab | null) ?? 'across')
watch(tab, (now) => keepDraft(`${jobId.value}.tab`, now))

/** A figure is taken when the transmitter is hooked up as it should be, or where the ground is made up. */
const underWay = useVisitToday()
const isOn = computed(() => underWay.value !== null && toneOn(property.facts!, underWay.value.id) !== null)
const saidOn = ref(draftOf(`${jobId.value}.on`) === 'yes')
watch(saidOn, (now) => keepDraft(`${jobId.value}.on`, now ? 'yes' : ''))
const mayRead = computed(() => isOn.value || saidOn.value || (wand.connected.value && wand.simulated.value))
const hookUp = shipped('hook_up')!

const chosen = ref<MapThing | null>(null)
watch(
  () => traces.value?.cable,
  (cable) => {
    chosen.value = cable ? { kind: 'cable', id: cable } : null
  },
  { immediate: true },
)
const tapped = shallowRef<Point | null>(null)
const overlay = computed((): MapOverlay => {
  const area = search.value?.area
  const way = trace.value?.way
  const next = tab.value === 'box' && !probes.value.some((p) => p.marked.hit) ? area?.probes[0]?.at : undefined
  return {
    line: trace.value?.line ?? [],
    spots: [
      ...flags.value.map((f) => ({ at: f.marked.at, kind: 'flag' as const, label: '' })),
      ...(way
        ? finds.value.map((f, i) => ({
            at: beside(way.points, f.along_m.mid, acrossAt(trace.value!.sections, f.along_m.mid)),
            kind: 'find' as const,
            label: String(i + 1),
          }))
        : []),
      ...probes.value.map((p) => ({
        at: p.marked.at,
        kind: p.marked.hit ? ('hit' as const) : ('miss' as const),
        label: '',
      })),
      ...(next ? [{ at: next, kind: 'next' as const, label: '' }] : []),
    ],
    area: area
      ? {
          cell_m: area.cell_m,
          half: area.cells.filter((c) => c.held - c.p < 0.5).map((c) => c.at),
          most: area.cells.filter((c) => c.held - c.p >= 0.5 && c.held - c.p < 0.9).map((c) => c.at),
        }
      : null,
  }
})
const board = useTemplateRef<{ fitOverlay: () => void }>('board')
watch(tab, () => board.value?.fitOverlay())
const first = ref(true)
watch(search, (now) => {
  if (!now || !first.value) return
  first.value = false
  void nextTick(() => board.value?.fitOverlay())
})
</script>

<template>
  <div v-if="!traces || !trace" class="sheet stack">
    <p>{{ t('trace.notThere') }}</p>
    <p>
      <NuxtLink class="button" :to="`${base}/trace`">{{ t('trace.all') }}</NuxtLink>
    </p>
  </div>
  <div v-else class="page">
    <header class="stack head">
      <h1>
        {{
          traces.box
            ? t('trace.headingBox', { box: name(traces.box), cable: cableName })
            : t('trace.heading', { cable: cableName })
        }}
      </h1>
      <PickBar v-model="tab" :label="t('trace.title')" :options="tabs" />
    </header>
    <div class="stack steps">
      <section v-if="!mayRead && (tab === 'across' || tab === 'along')" class="sheet stack hook" role="note">
        <h2>{{ t('trace.hook') }}</h2>
        <p>{{ t('trace.hookHow') }}</p>
        <NuxtLink class="button" :to="`${base}/work/procedures`">{{ sayTitle(hookUp, speaker) }}</NuxtLink>
        <TickBox v-model="saidOn">{{ t('trace.hookDone') }}</TickBox>
      </section>
      <template v-if="!property.viewed">
        <BoxSearch v-if="tab === 'box' && traces.box" :work="work" :wand="wand" :box="traces.box" />
        <AcrossStep v-else-if="tab === 'across' && mayRead && trace.way" :work="work" :wand="wand" />
        <AlongStep v-else-if="tab === 'along' && mayRead && trace.way" :work="work" :wand="wand" />
        <FlagStep v-else-if="!trace.way && tab !== 'line'" :work="work" :tapped="tapped" />
      </template>
      <LineTaken v-if="tab === 'line'" :work="work" />
      <FlagStep v-if="tab === 'line' && !property.viewed" :work="work" :tapped="tapped" />
      <WandBar v-if="tab !== 'line'" :work="work" :wand="wand" />
    </div>
    <div class="map" :aria-label="t('trace.map')">
      <MapBoard
        ref="board"
        :site="property.site!"
        :mode="tab === 'line' || !trace.way ? 'place' : 'choose'"
        :chosen="chosen"
        :picture="null"
        :underlay="null"
        :over="overlay"
        @clicked="tapped = $event"
      />
    </div>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 480px) minmax(300px, 1fr);
  gap: 16px 24px;
  align-items: start;
}
.head {
  grid-column: 1 / -1;
}
.map {
  height: calc(100vh - 200px);
  min-height: 360px;
  position: sticky;
  top: 68px;
}
.hook {
  border-left: 5px solid var(--doubtful);
}
@media (max-width: 759px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
  }
  .map {
    position: static;
    height: 360px;
  }
  .head :deep(.pick-bar button) {
    min-height: 48px;
  }
}
</style>
