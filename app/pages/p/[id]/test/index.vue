<script setup lang="ts">
import { sweepTerminals, terminalTest } from '../../../../../core/expect'
import { standingReadings, testKey, visitsInOrder } from '../../../../../core/record'
import { must } from '../../../../../core/site'
import { useStates } from '../../../../composables/useConclusion'
import { dayText, useSpeaker } from '../../../../composables/useSpeaker'
import { useProperty } from '../../../../stores/property'

const route = useRoute()
const property = useProperty()
const { t } = useSpeaker(() => property.site!.settings.units)
const starting = ref(false)

const states = useStates(
  () => property.site,
  () => property.facts,
)
/** Every sweep with how far it got and how many of its readings are faults or doubtful. */
const sweeps = computed(() =>
  visitsInOrder(property.facts!).flatMap((id) => {
    const facts = property.facts!
    const visit = facts.visits[id]!
    const controller = property.site!.controllers[visit.controller]
    if (!controller) return []
    const scene = property.sceneAt(null)
    const logged = standingReadings(facts, id)
    const standing = logged.map((l) => l.reading)
    const found = states.value && logged.map((l) => states.value![l.id])
    const hanging = scene.hanging(visit.controller)
    const terminals = sweepTerminals(property.site!, visit.controller, hanging).filter(
      (t) => hanging.get(t)!.switchedBy.length === 0,
    ) // behind a sequencer nothing is read here
    const read = new Set(standing.map((r) => testKey(r.test)))
    return [
      {
        id,
        visit,
        controller,
        faults: found?.filter((s) => s === 'fault').length ?? null,
        doubtful: found?.filter((s) => s === 'doubtful').length ?? 0,
        done: terminals.filter((t) => read.has(testKey(terminalTest(property.site!, visit.controller, t)!))).length,
        all: terminals.length,
        closed: Object.values(facts.closings).some((c) => c.visit === id),
      },
    ]
  }),
)
const begun = (visit: string) => navigateTo(`/p/${String(route.params.id)}/test/${visit}`)
</script>

<template>
  <div class="stack page">
    <div class="row title">
      <h1>{{ t('test.sweeps') }}</h1>
      <span class="row">
        <NuxtLink v-if="sweeps.length > 1" class="button" :to="`/p/${route.params.id}/test/compare`">
          {{ t('compare.choose') }}
        </NuxtLink>
        <button
          v-if="!property.viewed && Object.keys(property.site!.controllers).length > 0"
          type="button"
          class="button primary"
          @click="starting = true"
        >
          {{ t('test.start') }}
        </button>
      </span>
    </div>
    <p class="quiet">{{ t('test.noneHow') }}</p>
    <p v-if="sweeps.length === 0" class="sheet">{{ t('test.none') }}</p>
    <ul class="stack list">
      <li v-for="s in sweeps" :key="s.id">
        <NuxtLink class="sheet sweep" :to="`/p/${route.params.id}/test/${s.id}`">
          <span>
            <strong>
              {{ s.visit.title || t('test.of', { name: must(property.site!.controllers, s.visit.controller).name }) }}
            </strong>
            <span class="quiet">
              · {{ s.controller.name }} · {{ dayText(s.visit.at) }}
              <template v-if="s.visit.author">· {{ s.visit.author }}</template>
            </span>
          </span>
          <span class="row">
            <StateMark
              :state="
                s.done === 0 || s.faults === null
                  ? 'none'
                  : s.faults > 0
                    ? 'fault'
                    : s.doubtful > 0
                      ? 'doubtful'
                      : 'fits'
              "
              silent
            />
            <span>
              {{ s.faults === null ? '…' : t('test.faults', s.faults)
              }}{{ s.doubtful > 0 ? `, ${t('test.doubtful', { count: s.doubtful })}` : '' }} ·
              {{ t('test.count', { done: s.done, all: s.all }) }}
            </span>
            <span class="go">{{ s.closed ? t('test.look') : t('test.resume') }}</span>
          </span>
        </NuxtLink>
      </li>
    </ul>
    <LazyBeginVisit
      v-if="starting"
      v-model:visible="starting"
      :heading="t('test.start')"
      :name-label="t('test.titleField')"
      :named="t('test.defaultTitle')"
      @begun="begun"
    />
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
}
.title {
  justify-content: space-between;
}
.list {
  gap: 8px;
}
.sweep {
  display: flex;
  justify-content: space-between;
  gap: 8px 24px;
  flex-wrap: wrap;
  color: inherit;
  text-decoration: none;
  align-items: center;
}
.sweep:hover {
  border-color: var(--copper);
}
.go {
  color: var(--copper);
  font-weight: 600;
}
</style>
