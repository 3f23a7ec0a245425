<script setup lang="ts">
import type { FitWanted } from '../../../core/sequencer'
import { byTag, entries, getOrThrow, type PlaceId, type StationId } from '../../../core/site'
import { sayRefusal } from '../../../words'
import { useFit, useSchedulePage } from '../../composables/useSchedule'
import { useSequencerWords } from '../../composables/useSequencers'
import { readableTimes } from '../../lib/finding-params'
import { optionsOf } from '../../lib/options'
import { today } from '../../lib/today'

/** A sequencer for the valves of a box: whose lead feeds it, who hangs on it, what is to be made and what it costs. */
const props = defineProps<{ place: PlaceId }>()
const { site, speaker, keep, sentences } = useSchedulePage()
const t = useSequencerWords()

const terminalTag = (id: StationId) => {
  const { controller, terminal } = getOrThrow(site.value.stations, id)
  return getOrThrow(getOrThrow(site.value.controllers, controller).terminals, terminal).tag
}
const isHere = (valves: readonly string[]) =>
  valves.length > 0 && valves.every((v) => getOrThrow(site.value.devices, v as never).place === props.place)
const here = computed(() =>
  entries(site.value.stations)
    .filter(([, s]) => s.address === null && isHere(s.valves))
    .map(([id, s]) => ({ id, controller: s.controller, label: `${terminalTag(id)} ${s.name}` }))
    .sort((a, b) => byTag(a.label, b.label)),
)
const chosen = ref<StationId | null>(null)
const host = computed(() => here.value.find((s) => s.id === chosen.value) ?? here.value[0] ?? null)
const mates = computed(() =>
  here.value.filter((s) => s.id !== host.value?.id && s.controller === host.value?.controller),
)
/** In the order of the outputs. */
const picked = ref<StationId[]>([])
const others = computed(() => picked.value.filter((id) => mates.value.some((m) => m.id === id)))
const pick = (id: StationId, isPicked: boolean) =>
  (picked.value = [...picked.value.filter((p) => p !== id), ...(isPicked ? [id] : [])])
const how = ref<'one' | 'jumpered'>('jumpered')
const isSetApart = ref(false)

const wanted = computed((): FitWanted | null => {
  if (!host.value || others.value.length === 0) return null
  const { controller, terminal } = getOrThrow(site.value.stations, host.value.id)
  return {
    host: { controller, terminal },
    others: others.value,
    // Two outputs take two valves.
    outputs: others.value.length > 1 ? 4 : 2,
    how: how.value,
    isSetApart: isSetApart.value,
  }
})
const { found: seen, behind } = useFit(
  () => wanted.value,
  () => today(),
)
const done = ref('')
async function write(): Promise<void> {
  if (!seen.value?.fit.ok) return
  const { commands, sequencer } = seen.value.fit.value
  if (!(await keep({ ok: true, value: [...commands] }))) return
  picked.value = []
  done.value = t('sequencers.fit.done', { sequencer })
}
</script>

<template>
  <details v-if="here.length > 1 || done" class="sheet folds">
    <summary>
      <h2>{{ t('sequencers.fit.title') }}</h2>
    </summary>
    <div class="stack">
      <p v-if="done" role="status">{{ done }}</p>
      <p class="quiet">{{ t('sequencers.fit.how') }}</p>
      <PickOne
        id="fit-host"
        class="host"
        :model-value="host?.id ?? null"
        :label="t('sequencers.fit.host')"
        :options="here.map((s) => ({ value: s.id, label: s.label }))"
        @update:model-value="chosen = $event"
      />
      <fieldset class="field">
        <legend class="label">{{ t('sequencers.fit.others') }}</legend>
        <div class="row">
          <TickBox
            v-for="m in mates"
            :key="m.id"
            :model-value="picked.includes(m.id)"
            @update:model-value="pick(m.id, $event)"
          >
            {{ m.label }}
          </TickBox>
        </div>
      </fieldset>
      <PickRadio
        v-model="how"
        :label="t('sequencers.fit.means')"
        :options="optionsOf(['jumpered', 'one'], (k) => t(`sequencers.fit.hows.${k}`))"
      />
      <TickBox v-if="how === 'jumpered'" v-model="isSetApart">{{ t('sequencers.fit.apart') }}</TickBox>
      <ul v-if="seen && !seen.fit.ok" class="fault" role="alert">
        <li v-for="r in seen.fit.refusals" :key="r.code">{{ sayRefusal(r, speaker) }}</li>
      </ul>
      <template v-else-if="seen?.fit.ok && wanted && host">
        <p>
          {{
            t('sequencers.fit.comes', {
              outputs: wanted.outputs,
              joints: seen.fit.value.joints,
              caps: seen.fit.value.caps,
            })
          }}
          {{ ' ' }}
          {{
            how === 'one'
              ? t('sequencers.fit.one', { terminal: terminalTag(host.id) })
              : t('sequencers.fit.jumpered', { terminals: seen.terminals.join(' + ') })
          }}
        </p>
        <p v-if="seen.found.length === 0" class="quiet">{{ t('sequencers.fit.fine') }}</p>
        <div v-else>
          <p class="quiet">{{ t('sequencers.fit.schedule') }}</p>
          <ul>
            <li v-for="f in seen.found" :key="f.code">
              <StateMark state="doubtful" silent />
              {{ t(`schedule.${f.code}`, readableTimes(f.params)) }}
            </li>
          </ul>
        </div>
        <ul v-if="sentences.length > 0" class="fault" role="alert">
          <li v-for="s in sentences" :key="s">{{ s }}</li>
        </ul>
        <p class="row">
          <AppButton look="primary" :disabled="behind" @click="write">{{ t('sequencers.fit.write') }}</AppButton>
        </p>
      </template>
    </div>
  </details>
</template>

<style scoped>
.host {
  max-width: 320px;
}
</style>
