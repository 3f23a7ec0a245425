<script setup lang="ts">
import { byTag, endKey, entries, getOrThrow, tagAndName, type PlaceId, type TerminalId } from '../../../core/site'
import { endsAt, leadsWaiting, missingHalfCommands, newTroubles, sparesHome } from '../../../core/splice'
import { sayTrouble } from '../../../words/breach'
import type { TraceWorkHere } from '../../composables/useTrace'
import { useSeenName } from '../../composables/useSeenName'
import { usePlan } from '../../composables/usePlan'

/**
 * The tone of a valve ended in a box on no mate: both halves are proved by themselves, and a spare is put in between.
 */
const props = defineProps<{ work: TraceWorkHere }>()
const { t, property, speaker } = props.work
const { keep, sentences } = usePlan(() => speaker.value)
const seenName = useSeenName((key, params) => t(key, params ?? {}))
const site = computed(() => property.site!)

const boxes = computed(() =>
  entries(site.value.places)
    .filter(([id, p]) => p.kind !== 'cabinet' && sparesHome(site.value, id).length > 0)
    .sort(([, a], [, b]) => byTag(a.tag, b.tag))
    .map(([value, p]) => ({ value, label: tagAndName(p) })),
)
const box = ref<PlaceId | null>(boxes.value[0]?.value ?? null)
const leads = computed(() => (box.value ? leadsWaiting(site.value, box.value) : []))
const spares = computed(() => (box.value ? sparesHome(site.value, box.value) : []))
const [leadKey, spareKey, terminal] = [ref(''), ref(''), ref<TerminalId | ''>('')]
const lead = computed(() => leads.value.find((e) => endKey(e.seen.end) === leadKey.value) ?? null)
const spare = computed(() => spares.value.find((s) => endKey(s.box.seen.end) === spareKey.value) ?? null)
/** Screws of that cabinet that hold nothing. */
const screws = computed(() => {
  if (!spare.value) return []
  const controller = getOrThrow(site.value.controllers, spare.value.controller)
  return endsAt(site.value, controller.place).flatMap((e) => {
    const { end } = e.seen
    return end.kind === 'terminal' && end.controller === spare.value!.controller && e.splice === null
      ? [{ value: end.terminal as TerminalId | '', label: e.seen.from }]
      : []
  })
})
watch([box, spare], () => {
  if (!screws.value.some((s) => s.value === terminal.value)) terminal.value = screws.value[0]?.value ?? ''
})
const [provedBox, provedHome] = [ref(false), ref(false)]
watch([leadKey, box], () => {
  provedBox.value = false
})
watch([spareKey, box], () => {
  provedHome.value = false
})
const wish = computed(() =>
  box.value && lead.value && spare.value && terminal.value && leadKey.value !== spareKey.value
    ? missingHalfCommands(site.value, box.value, lead.value.seen.end, spare.value, terminal.value)
    : null,
)
const troubles = computed(() => (wish.value?.ok ? newTroubles(site.value, wish.value.value) : []))
const done = ref(false)
async function join(): Promise<void> {
  if (!wish.value) return
  done.value = await keep(wish.value)
}
const named = (ends: readonly (typeof leads.value)[number][]) =>
  ends.map((e) => ({ value: endKey(e.seen.end), label: seenName(e.seen, e.seen.way === 'leaves') }))
</script>

<template>
  <section class="stack">
    <h2>{{ t('trace.backTitle') }}</h2>
    <p class="quiet">{{ t('trace.back') }}</p>
    <p v-if="boxes.length === 0" class="quiet">{{ t('trace.noSpares') }}</p>
    <template v-else>
      <PickOne id="half-box" v-model="box" :label="t('trace.endsIn')" :options="boxes" />
      <PickOne id="half-lead" v-model="leadKey" :label="t('trace.halfLead')" :options="named(leads)" />
      <PickOne
        id="half-spare"
        v-model="spareKey"
        :label="t('trace.halfSpare')"
        :options="named(spares.map((s) => s.box)).filter((o) => o.value !== leadKey)"
      />
      <PickOne v-if="spare" id="half-screw" v-model="terminal" :label="t('trace.halfScrew')" :options="screws" />
      <TickBox v-model="provedBox">{{ t('trace.provedBox') }}</TickBox>
      <TickBox v-model="provedHome">{{ t('trace.provedHome') }}</TickBox>
      <p v-for="(trouble, i) in troubles" :key="i" class="doubtful">{{ sayTrouble(trouble, speaker) }}</p>
      <p v-for="sentence in sentences" :key="sentence" class="fault" role="alert">{{ sentence }}</p>
      <p v-if="done" class="fits" role="status">{{ t('trace.halfDone') }}</p>
      <p v-if="!property.viewed">
        <AppButton :disabled="!wish?.ok || !provedBox || !provedHome" look="primary" @click="join">
          {{ t('trace.halfJoin') }}
        </AppButton>
      </p>
    </template>
  </section>
</template>
