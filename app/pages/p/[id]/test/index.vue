<script setup lang="ts">
import { sweepTerminals, terminalTest } from '../../../../../core/expect'
import {
  jobsByVisit,
  jobsInOrder,
  peopleOf,
  standingReadings,
  testKey,
  visitsInOrder,
} from '../../../../../core/record'
import { getOrThrow, type ControllerId, type TerminalId } from '../../../../../core/site'
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
const jobsOf = computed(() => jobsByVisit(property.facts!))
/** Every visit with its jobs. */
const visits = computed(() =>
  visitsInOrder(property.facts!).map((id) => ({
    id,
    at: property.facts!.visits[id]!.at,
    people: peopleOf(property.facts!, id).join(', '),
    jobs: (jobsOf.value.get(id) ?? []).map(lineOf),
  })),
)
const sweepCount = computed(() => jobsInOrder(property.facts!, 'sweep').length)

/** A job with how far it got: of a sweep how many of its readings are faults or doubtful, of a hunt what was mended. */
function lineOf(id: string) {
  const facts = property.facts!
  const job = facts.jobs[id]!
  const logged = standingReadings(facts, id)
  const found = states.value && logged.map((l) => states.value![l.id])
  const terminals = terminalsReadAt(job.controller)
  const read = new Set(logged.map((l) => testKey(l.reading.test)))
  const controller = getOrThrow(property.site!.controllers, job.controller)
  return {
    id,
    kind: job.kind,
    title: job.title || t('test.of', { name: controller.name }),
    controller: controller.name,
    readings: logged.length,
    mended: Object.values(facts.findings).filter((f) => f.job === id).length,
    faults: found?.filter((s) => s === 'fault').length ?? null,
    doubtful: found?.filter((s) => s === 'doubtful').length ?? 0,
    done: terminals.filter((at) => read.has(testKey(terminalTest(property.site!, job.controller, at)!))).length,
    all: terminals.length,
    closed: Object.values(facts.closings).some((c) => c.job === id),
  }
}
type Line = ReturnType<typeof lineOf>

/** Behind a sequencer nothing is read at the cabinet. */
function terminalsReadAt(controller: ControllerId): TerminalId[] {
  const hanging = property.sceneAt(null).hanging(controller)
  return sweepTerminals(property.site!, controller, hanging).filter((at) => hanging.get(at)!.switchedBy.length === 0)
}
const stateOfLine = ({ done, faults, doubtful }: Line) => {
  if (done === 0 || faults === null) return 'none'
  return faults > 0 ? 'fault' : doubtful > 0 ? 'doubtful' : 'fits'
}
const textOfLine = (line: Line): string => {
  if (line.kind === 'hunt')
    return `${t('test.mended', line.mended)} · ${t('test.hunted', { count: line.readings }, line.readings)}`
  const faults = line.faults === null ? '…' : t('test.faults', line.faults)
  const doubtful = line.doubtful > 0 ? `, ${t('test.doubtful', { count: line.doubtful })}` : ''
  return `${faults}${doubtful} · ${t('test.count', { done: line.done, all: line.all })}`
}
const addressOf = ({ kind, id }: Line): string => {
  const place = `/p/${String(route.params.id)}`
  return kind === 'hunt' ? `${place}/diagnose?job=${id}` : `${place}/test/${id}`
}
const begun = (job: string) => navigateTo(`/p/${String(route.params.id)}/test/${job}`)
</script>

<template>
  <div class="stack page">
    <div class="row title">
      <h1>{{ t('test.sweeps') }}</h1>
      <span class="row">
        <NuxtLink v-if="sweepCount > 1" class="button" :to="`/p/${route.params.id}/test/compare`">
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
    <p v-if="visits.length === 0" class="sheet">{{ t('test.none') }}</p>
    <section v-for="v in visits" :key="v.id" class="stack list">
      <h2>
        {{ dayText(v.at) }}
        <span v-if="v.people" class="quiet">{{ v.people }}</span>
      </h2>
      <NuxtLink v-for="line in v.jobs" :key="line.id" class="sheet job" :to="addressOf(line)">
        <span>
          <strong>{{ line.title }}</strong>
          <span class="quiet">{{ ` · ${line.controller}` }}</span>
        </span>
        <span class="row">
          <StateMark v-if="line.kind === 'sweep'" :state="stateOfLine(line)" silent />
          <span>{{ textOfLine(line) }}</span>
          <span class="go">{{ line.closed ? t('test.look') : t('test.resume') }}</span>
        </span>
      </NuxtLink>
    </section>
    <LazyBeginJob
      v-if="starting"
      v-model:visible="starting"
      kind="sweep"
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
h2 {
  font-size: 17px;
}
h2 .quiet {
  font-size: 15px;
  font-weight: 400;
}
.job {
  display: flex;
  justify-content: space-between;
  gap: 8px 24px;
  flex-wrap: wrap;
  color: inherit;
  text-decoration: none;
  align-items: center;
}
.job:hover {
  border-color: var(--copper);
}
.go {
  color: var(--copper);
  font-weight: 600;
}
</style>
