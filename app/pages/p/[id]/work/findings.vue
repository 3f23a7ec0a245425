<script setup lang="ts">
import {
  SEVERITIES,
  SIGHTED,
  targetKey,
  type Severity,
  type Sighted,
  type WorkTarget,
} from '../../../../../core/record'
import { READ_SEVERITY, USUAL_SEVERITY, type Standing } from '../../../../../core/sightings'
import { byTag, entries, terminalsInOrder } from '../../../../../core/site'
import { usePhotos } from '../../../../composables/usePhotos'
import { useReadFindings } from '../../../../composables/useReadFindings'
import { useSightings } from '../../../../composables/useSightings'
import { dayText } from '../../../../composables/useSpeaker'
import { optionsOf } from '../../../../lib/options'

/** Findings by eye: one is noted in three taps; those that stand are led on from open to done. */
const { property, t, all, note, turn, nameOf, tellingOf } = useSightings()
const { all: photos } = usePhotos()
const { found: read } = useReadFindings()
const route = useRoute()

const boxes = computed(() =>
  entries(property.site!.places)
    .filter(([, p]) => p.kind !== 'cabinet')
    .sort(([, a], [, b]) => byTag(a.tag, b.tag))
    .map(([place, p]) => ({
      on: { kind: 'box', place } as WorkTarget,
      label: t('sighting.whereBox', { tag: p.tag, name: p.name }).trim(),
    })),
)
const zones = computed(() =>
  entries(property.site!.controllers).flatMap(([controller, c]) =>
    terminalsInOrder(property.site!, controller).flatMap((terminal) =>
      entries(property.site!.stations)
        .filter(([, s]) => s.controller === controller && s.terminal === terminal)
        .flatMap(([, s]): { on: WorkTarget; label: string }[] => {
          const [device] = s.valves
          const tag = s.address === null ? `${c.tag} ${c.terminals[terminal]!.tag}` : `${c.tag} ${s.address}`
          const label = t('sighting.whereZone', { tag, name: s.name })
          if (s.address === null) return [{ on: { kind: 'terminal', controller, terminal }, label }]
          return device === undefined ? [] : [{ on: { kind: 'coil', device }, label }]
        }),
    ),
  ),
)
const places = computed(() => [...boxes.value, ...zones.value].map((p) => ({ ...p, value: targetKey(p.on) })))
/** The box whose page led here, else where the last one was. */
const where = ref(
  typeof route.query.box === 'string' ? targetKey({ kind: 'box', place: route.query.box as never }) : '',
)
const on = computed(() => places.value.find((p) => p.value === where.value)?.on ?? null)
const what = ref<Sighted | null>(null)
const severity = ref<Severity>('later')
const words = ref('')
const kept = ref('')
function choose(sighted: Sighted): void {
  what.value = sighted
  severity.value = USUAL_SEVERITY[sighted]
}
async function keep(): Promise<void> {
  if (!on.value || !what.value) return
  await note({ on: on.value, what: what.value, severity: severity.value, note: words.value.trim() })
  kept.value = t('sighting.kept', { what: t(`sighted.${what.value}`) })
  what.value = null
  words.value = ''
}

const SETTLED = new Set(['done', 'declined'])
const standing = computed(() => all.value.filter((s) => !SETTLED.has(s.state)))
const settled = computed(() => all.value.filter((s) => SETTLED.has(s.state)))
const NEXT = { open: ['done', 'declined'], quoted: ['accepted', 'declined'], accepted: ['done'] } as const
const nextOf = ({ state }: Standing) => (state in NEXT ? NEXT[state as keyof typeof NEXT] : [])
const shown = (s: Standing) => photos.value.filter(({ photo }) => targetKey(photo.on) === targetKey(s.seen.on))
/** What readings say by themselves. */
const byReadings = computed(() => [
  ...(read.value?.faults ?? []).map((f) => ({ ...f, severity: READ_SEVERITY.fault, on: null })),
  ...(read.value?.creeping ?? []).map((c) => ({ ...c, severity: READ_SEVERITY.creeping, at: null })),
])
const threadOf = ({ controller, terminal }: (typeof byReadings)['value'][number]) =>
  nameOf({ kind: 'terminal', controller, terminal })
const MARK = { danger: 'fault', stops: 'fault', wastes: 'doubtful', later: 'none' } as const
</script>

<template>
  <div class="stack page">
    <h1>{{ t('places.findings') }}</h1>
    <p class="quiet">{{ t('sighting.how') }}</p>
    <form v-if="!property.viewed" class="sheet stack" @submit.prevent="keep">
      <h2>{{ t('sighting.new') }}</h2>
      <PickOne
        id="sighting-where"
        v-model="where"
        :label="t('sighting.where')"
        :options="[{ value: '', label: '…' }, ...places.map(({ value, label }) => ({ value, label }))]"
      />
      <fieldset class="field">
        <legend class="label">{{ t('sighting.what') }}</legend>
        <div class="row kinds">
          <AppButton
            v-for="s in SIGHTED"
            :key="s"
            v-bind="what === s ? { look: 'primary' as const } : {}"
            :aria-pressed="what === s"
            @click="choose(s)"
          >
            {{ t(`sighted.${s}`) }}
          </AppButton>
        </div>
      </fieldset>
      <template v-if="what">
        <PickOne
          id="sighting-severity"
          v-model="severity"
          :label="t('sighting.risks')"
          :options="optionsOf(SEVERITIES, (s) => t(`severity.${s}`))"
        />
        <div class="field">
          <label for="sighting-note">{{ t('sighting.note') }}</label>
          <TextField id="sighting-note" v-model="words" class="input" maxlength="300" autocomplete="off" />
        </div>
      </template>
      <p class="row">
        <AppButton type="submit" look="primary" :disabled="!on || !what">{{ t('sighting.keep') }}</AppButton>
        <span v-if="kept" role="status">{{ kept }}</span>
      </p>
    </form>
    <section class="sheet">
      <p v-if="standing.length === 0" class="quiet">{{ t('sighting.none') }}</p>
      <ul v-else>
        <DeedRow v-for="s in standing" :key="s.id">
          <template #mark><StateMark :state="MARK[s.seen.severity]" silent /></template>
          <strong>{{ t(`sighted.${s.seen.what}`) }}</strong>
          {{ tellingOf(s.seen) }}
          <span class="quiet line">
            {{ t(`sightingState.${s.state}`) }} · {{ t(`severity.${s.seen.severity}`) }} · {{ dayText(s.seen.at) }}
            <template v-if="s.seen.author">· {{ s.seen.author }}</template>
            <template v-if="!(s.id in property.facts!.sightings)">· {{ t('sighting.byWalk') }}</template>
          </span>
          <PhotoStrip v-if="shown(s).length > 0" :photos="shown(s)" />
          <template v-if="!property.viewed" #deeds>
            <AppButton v-for="to in nextOf(s)" :key="to" @click="turn(s.id, to)">
              {{ t(`sightingState.${to}`) }}
            </AppButton>
            <PhotoTaker :of="{ on: s.seen.on }" />
            <AppButton look="plain" @click="turn(s.id, 'struck')">{{ t('sighting.strike') }}</AppButton>
          </template>
        </DeedRow>
      </ul>
    </section>
    <section v-if="byReadings.length > 0" class="sheet stack">
      <h2>{{ t('sighting.readings') }}</h2>
      <p class="quiet">{{ t('sighting.readingsHow') }}</p>
      <ul>
        <DeedRow v-for="f in byReadings" :key="`${f.controller} ${f.terminal}`">
          <template #mark><StateMark :state="MARK[f.severity]" silent /></template>
          <strong>{{ threadOf(f) }}</strong>
          {{
            f.at === null
              ? t('sighting.creeps', { day: dayText(`${f.on}T12:00:00`) })
              : t('sighting.reads', { verdict: t(`verdict.${f.verdict}`), day: dayText(f.at) })
          }}
          <span class="quiet line">{{ t(`severity.${f.severity}`) }}</span>
          <template #deeds>
            <NuxtLink class="button" :to="`/p/${route.params.id}/diagnose`">{{ t('places.diagnose') }}</NuxtLink>
          </template>
        </DeedRow>
      </ul>
    </section>
    <details v-if="settled.length > 0" class="sheet folds">
      <summary>
        <h2>{{ t('sighting.settled') }}</h2>
      </summary>
      <ul>
        <DeedRow v-for="s in settled" :key="s.id">
          {{ t(`sighted.${s.seen.what}`) }} · {{ tellingOf(s.seen) }}
          <span class="quiet line">
            {{ t(`sightingState.${s.state}`) }} · {{ dayText(s.turn?.at ?? s.seen.at) }}
            <template v-if="s.turn?.author">· {{ s.turn.author }}</template>
          </span>
          <template v-if="!property.viewed" #deeds>
            <AppButton @click="turn(s.id, 'open')">{{ t('sighting.again') }}</AppButton>
          </template>
        </DeedRow>
      </ul>
    </details>
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
}
.kinds {
  gap: 8px;
}
.line {
  display: block;
}
</style>
