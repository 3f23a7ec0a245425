<script setup lang="ts">
import type { SequencerTold } from '../../../core/record'
import { getOrThrow, type ControllerId, type DeviceId, type Site } from '../../../core/site'
import { useSequencers } from '../../composables/useSequencers'

/** The sequencers on a controller’s leads: which valve comes next, what counts, and how one is brought into step. */
const props = defineProps<{ site: Site; controller: ControllerId; fixed: boolean }>()
const { t, all, nameOf, tell } = useSequencers(() => props.controller)
const terminals = computed(() => getOrThrow(props.site.controllers, props.controller).terminals)
const boxOf = (device: DeviceId) => {
  const { place } = getOrThrow(props.site.devices, device)
  return getOrThrow(props.site.places, place).tag
}
const percent = (probability: number) => Math.round(probability * 100)
const said = (told: SequencerTold): string => {
  switch (told.kind) {
    case 'turned':
      return t('sequencers.told.turned', told.times)
    case 'perhaps':
      return t('sequencers.told.perhaps', { count: told.most })
    case 'watered':
      return told.valve === null ? t('sequencers.sawNone') : t('sequencers.told.watered', { valve: nameOf(told.valve) })
    default:
      return ''
  }
}
/** Time without power that is long enough by hand for any device. */
const pause_s = (off_ms: number) => Math.max(1, Math.ceil(off_ms / 1000))
const unseen = ref(1)
</script>

<template>
  <section v-if="all.length > 0" id="sequencers" class="sheet stack">
    <div>
      <h2>{{ t('sequencers.title') }}</h2>
      <p class="quiet">{{ t('sequencers.how') }}</p>
    </div>
    <div v-for="q in all" :key="q.sequenced.device" class="stack one">
      <h3>
        {{
          t('sequencers.fed', {
            sequencer: nameOf(q.sequenced.device),
            box: boxOf(q.sequenced.device),
            terminals: q.sequenced.fedBy.map((id) => terminals[id]!.tag).join(' + '),
          })
        }}
      </h3>
      <ol class="outputs">
        <li v-for="(coils, i) in q.sequenced.outputs" :key="i">
          <span class="quiet">{{ t('sequencers.output', { output: i + 1 }) }}</span>
          {{ ' ' }}
          <strong class="figure">{{ coils.map(nameOf).join(' + ') || t('sequencers.capped') }}</strong>
        </li>
      </ol>
      <p aria-live="polite">
        <span class="quiet">{{ t('sequencers.next') }}</span>
        {{ ' ' }}
        <strong>
          {{
            q.next
              .map((n) =>
                t('sequencers.percent', {
                  valve: n.of === null ? t('sequencers.nothing') : nameOf(n.of),
                  percent: percent(n.probability),
                }),
              )
              .join(', ')
          }}
        </strong>
        {{ ' ' }}
        <span class="quiet">{{ t('sequencers.counted', q.turns) }}</span>
        <span v-if="q.byPrograms" class="quiet">
          {{ ' ' }}
          {{ t('sequencers.byPrograms', { since: q.byPrograms.since.slice(0, 10) }, q.byPrograms.turns) }}
        </span>
        <span v-if="q.lost > 0" class="doubtful">{{ ' ' }}{{ t('sequencers.lost', q.lost) }}</span>
      </p>
      <p v-for="valve in q.never" :key="valve">
        <StateMark state="fault" silent />
        {{ ' ' }}
        {{
          t('sequencers.never', {
            valve: nameOf(valve),
            sequencer: nameOf(q.sequenced.device),
            box: boxOf(q.sequenced.device),
          })
        }}
      </p>
      <div v-if="!fixed" class="row">
        <AppButton @click="tell(q.sequenced.device, { kind: 'turned', times: 1 })">
          {{ t('sequencers.turn') }}
        </AppButton>
        <AppButton
          v-for="valve in q.sequenced.outputs.flatMap((coils) => coils.slice(0, 1))"
          :key="valve"
          @click="tell(q.sequenced.device, { kind: 'watered', valve })"
        >
          {{ t('sequencers.saw', { valve: nameOf(valve) }) }}
        </AppButton>
        <AppButton
          v-if="q.sequenced.outputs.some((coils) => coils.length === 0)"
          @click="tell(q.sequenced.device, { kind: 'watered', valve: null })"
        >
          {{ t('sequencers.sawNone') }}
        </AppButton>
        <AppButton @click="tell(q.sequenced.device, { kind: 'perhaps', most: unseen })">
          {{ t('sequencers.unseen') }}
        </AppButton>
        <PickOne
          v-model="unseen"
          :aria-label="t('sequencers.unseenHow')"
          :options="[1, 2, 4, 8].map((value) => ({ value, label: `≤ ${value}` }))"
        />
      </div>
      <p v-if="q.entries.length > 0" class="row">
        <span class="quiet">{{ t('sequencers.last', { what: said(q.entries.at(-1)![1].told) }) }}</span>
        <AppButton
          v-if="!fixed"
          look="plain"
          @click="tell(q.sequenced.device, { kind: 'back', entry: q.entries.at(-1)![0] })"
        >
          {{ t('sequencers.back') }}
        </AppButton>
      </p>
      <div v-if="q.resync">
        <h4>{{ t('sequencers.sync') }}</h4>
        <p>
          {{
            t('sequencers.syncHow', {
              terminal: terminals[q.resync.terminal]!.tag,
              valve: nameOf(q.resync.until),
              off: pause_s(q.sequenced.off_ms),
            })
          }}
          {{ ' ' }}
          <span class="quiet">
            {{
              q.resync.pulses
                .map((p) => t('sequencers.pulses', { count: p.of, percent: percent(p.probability) }, p.of))
                .join(', ')
            }}
          </span>
        </p>
      </div>
      <WorkHere :target="{ kind: 'device', device: q.sequenced.device }" />
    </div>
  </section>
</template>

<style scoped>
.one {
  gap: 8px;
}
.outputs {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
}
</style>
