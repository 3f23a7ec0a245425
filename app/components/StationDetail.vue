<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { judge, stateOf, type Scene } from '../../core/expect'
import { ohmsText } from '../../core/quantity'
import { visitsInOrder, type Meter } from '../../core/record'
import { endKey, entries, type ControllerId } from '../../core/site'
import type { Speaker } from '../../words'
import { readingOhm, type SweepRow } from '../composables/useSweep'
import { dayText } from '../composables/useSpeaker'
import { useProperty } from '../stores/property'

/** One thread in full: its figures, what makes them up, every reading ever taken of it, and its name to change. */
const props = defineProps<{ row: SweepRow; controller: ControllerId; scene: Scene; meter: Meter; speaker: Speaker }>()
const { t } = useI18n()
const property = useProperty()

const station = computed(() => entries(property.site!.stations).find(([, s]) => s.controller === props.controller && s.terminal === props.row.terminal) ?? null)
const name = ref('')
watch(() => station.value?.[1].name, (now) => { name.value = now ?? '' }, { immediate: true })
async function rename(): Promise<void> {
  const text = name.value.trim()
  if (!station.value || text === station.value[1].name || text === '') return
  await property.change([{ do: 'set', in: 'stations', id: station.value[0], field: 'name', value: text }])
}

/** Readings of this pair of points, the latest first, each judged at its own visit's temperature. */
const history = computed(() => {
  const facts = property.facts!
  const order = new Map(visitsInOrder(facts).map((id, i) => [id, i]))
  const struck = new Map(Object.values(facts.strikeOuts).map((s) => [s.reading, s.reason]))
  const { test } = props.row.expected
  return entries(facts.readings)
    .filter(([, r]) => endKey(r.test.from) === endKey(test.from) && endKey(r.test.to) === endKey(test.to))
    .map(([id, reading]) => {
      const logged = { id, reading, struck: struck.get(id) ?? null }
      const visit = facts.visits[reading.visit]!
      const judged = judge(property.sceneAt(visit.ground_C, visit.coil_C), reading.test, reading.value, reading.meter)
      const ohm = readingOhm(logged)
      return { ...logged, visit, at: reading.at, text: ohm === null ? reading.meter.openMark : ohmsText(ohm), state: stateOf(judged.verdict.code), order: order.get(reading.visit) ?? 0 }
    })
    .sort((a, b) => a.order - b.order || b.at.localeCompare(a.at))
})
const role = computed(() => (property.site!.controllers[props.controller]!.terminals[props.row.terminal]!.role === 'master' ? 'threads.master' : 'threads.station'))
const measured = computed(() => {
  if (!props.row.logged) return null
  const ohm = readingOhm(props.row.logged)
  return ohm === null ? props.row.logged.reading.meter.openMark : ohmsText(ohm)
})
const expectedText = computed(() => {
  const e = props.row.expected.expectation
  return e.kind === 'ohms' ? ohmsText(e.expected_ohm) : null
})
</script>

<template>
  <div class="detail stack">
    <header>
      <p class="quiet">{{ t(role, { tag: row.tag }) }} · {{ row.name }}</p>
      <p v-if="measured" class="huge figure" :class="row.state">{{ measured }} <span v-if="row.logged?.reading.value.kind === 'ohm'" class="unit">Ω</span></p>
      <p v-if="expectedText" :class="measured ? 'quiet' : 'huge figure'"><template v-if="measured">{{ t('detail.expected', { figure: `${expectedText} Ω` }) }}</template><template v-else>{{ expectedText }} <span class="unit">Ω</span></template></p>
      <p v-if="expectedText && !measured" class="quiet">{{ t('threads.expected') }}</p>
    </header>
    <ReadingWhy :row="row" :judged="row.judged" :scene="scene" :meter="meter" :speaker="speaker" />
    <form v-if="station" class="field" @submit.prevent="rename">
      <label for="station-name">{{ t('detail.name') }}</label>
      <div class="rename"><TextField id="station-name" v-model="name" maxlength="80" autocomplete="off" /><button class="button" :disabled="name.trim() === station[1].name || name.trim() === ''">{{ t('detail.save') }}</button></div>
    </form>
    <section>
      <h3>{{ t('detail.history') }}</h3>
      <p v-if="history.length === 0" class="quiet">{{ t('detail.noHistory') }}</p>
      <table v-else class="table">
        <tbody>
          <tr v-for="h in history" :key="h.id">
            <td>{{ dayText(h.at) }} <span class="quiet">{{ h.visit.title }}</span><span v-if="h.struck !== null" class="quiet"> · {{ t('detail.struck', { reason: h.struck }) }}</span></td>
            <td class="figure" :class="{ struck: h.struck !== null }">{{ h.text }} <StateMark :state="h.struck === null ? h.state : 'none'" /></td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>

<style scoped>
.huge { font-size: 44px; font-weight: 700; line-height: 1.1; }
.unit { font-size: 20px; font-weight: 400; }
.rename { display: flex; gap: 8px; }
.struck { text-decoration: line-through; color: var(--quiet); }
</style>
