<script setup lang="ts">
import { judge, stateOf, sweepTerminals } from '../../../../../core/expect'
import { standingReadings, visitsInOrder } from '../../../../../core/record'
import { endKey, must } from '../../../../../core/site'
import { dayText, useSpeaker } from '../../../../composables/useSpeaker'
import { useProperty } from '../../../../stores/property'

const route = useRoute()
const property = useProperty()
const { t } = useSpeaker(() => property.site!.settings.units)
const starting = ref(false)

/** Every sweep with how far it got and how many of its readings are faults. */
const sweeps = computed(() => visitsInOrder(property.facts!).flatMap((id) => {
  const facts = property.facts!
  const visit = facts.visits[id]!
  const controller = property.site!.controllers[visit.controller]
  if (!controller) return []
  const scene = property.sceneAt(visit.ground_C, visit.coil_C)
  const standing = standingReadings(facts, id, (r) => `${endKey(r.test.from)} ${endKey(r.test.to)}`)
  const faults = standing.filter(({ reading: r }) => stateOf(judge(scene, r.test, r.value, r.meter).verdict.code) === 'fault').length
  return [{
    id, visit, controller, faults, done: standing.length, all: sweepTerminals(property.site!, visit.controller, scene.hanging(visit.controller)).length,
    closed: Object.values(facts.closings).some((c) => c.visit === id),
  }]
}))
const begun = (visit: string) => navigateTo(`/p/${String(route.params.id)}/test/${visit}`)
</script>

<template>
  <div class="stack page">
    <div class="row title"><h1>{{ t('test.sweeps') }}</h1><button type="button" class="button primary" @click="starting = true">{{ t('test.start') }}</button></div>
    <p class="quiet">{{ t('test.noneHow') }}</p>
    <p v-if="sweeps.length === 0" class="sheet">{{ t('test.none') }}</p>
    <ul class="stack list">
      <li v-for="s in sweeps" :key="s.id">
        <NuxtLink class="sheet sweep" :to="`/p/${route.params.id}/test/${s.id}`">
          <span><strong>{{ s.visit.title || t('test.of', { name: must(property.site!.controllers, s.visit.controller).name }) }}</strong><span class="quiet"> · {{ s.controller.name }} · {{ dayText(s.visit.at) }}<template v-if="s.visit.author"> · {{ s.visit.author }}</template></span></span>
          <span class="row"><StateMark :state="s.done === 0 ? 'none' : s.faults > 0 ? 'fault' : 'fits'" silent /><span>{{ t('test.faults', s.faults) }} · {{ t('test.count', { done: s.done, all: s.all }) }}</span><span class="go">{{ s.closed ? t('test.look') : t('test.resume') }}</span></span>
        </NuxtLink>
      </li>
    </ul>
    <LazyStartSweep v-if="starting" v-model:visible="starting" @begun="begun" />
  </div>
</template>

<style scoped>
.page { max-width: 880px; }
.title { justify-content: space-between; }
.list { gap: 8px; }
.sweep { display: flex; justify-content: space-between; gap: 8px 24px; flex-wrap: wrap; color: inherit; text-decoration: none; align-items: center; }
.sweep:hover { border-color: var(--copper); }
.go { color: var(--copper); font-weight: 600; }
</style>
