<script setup lang="ts">
import { apart_m, placeCommands, whereIs } from '../../../core/map'
import { areaText } from '../../../core/quantity'
import { shipped } from '../../../core/procedure'
import { byTag, entries, lookUp, tagAndName, type PlaceId, type Point } from '../../../core/site'
import type { TraceWorkHere } from '../../composables/useTrace'
import type { Wand } from '../../composables/useWand'
import { towards } from '../../lib/bearing'
import { today } from '../../lib/today'

/**
 * A lost box: how far the search has come in, where to probe next, and what to do when the rod comes down on the lid.
 */
const props = defineProps<{ work: TraceWorkHere; wand: Wand; box: PlaceId }>()
const { t, property, units, metres, write, takeBack, search, weighing, probes } = props.work
const place = computed(() => lookUp(property.site!.places, props.box) ?? null)
const squared = (m2: number) => areaText(m2, units.value)

const area = computed(() => search.value?.area ?? null)
const speaks = computed(() => {
  const e = search.value?.evidence
  if (!e) return ''
  const strays = e.strays_m.map((m) => metres(m, 1)).join(', ')
  return [
    e.drawn ? (strays ? t('trace.evidence.drawn', { strays }) : t('trace.evidence.plain')) : '',
    e.paced.length > 0 ? t('trace.evidence.paced', { count: e.paced.length }) : '',
    e.line.length > 1 ? t('trace.evidence.line', { count: e.line.length }) : '',
    e.met.length > 0 ? t('trace.evidence.met', { count: e.met.length }) : '',
    e.probed.length > 0 ? t('trace.evidence.probed', { count: e.probed.length }) : '',
  ]
    .filter(Boolean)
    .join('; ')
})
const last = computed(() => probes.value.at(-1)?.marked ?? null)
const hit = computed(() => probes.value.find((p) => p.marked.hit)?.marked.at ?? null)
const next = computed(() => area.value?.probes[0]?.at ?? null)
const where = computed(() => {
  const from = last.value?.at ?? place.value?.position?.value ?? null
  if (!next.value || !from) return ''
  const { distance_m, direction } = towards(from, next.value)
  return t(last.value ? 'trace.ofLast' : 'trace.ofDrawn', {
    distance: metres(distance_m),
    direction: t(`trace.directions.${direction}`),
  })
})
const probe = (at: Point, isHit: boolean) => write({ kind: 'probe', at: { x_m: at.x_m, y_m: at.y_m }, hit: isHit })
const busy = ref(false)
async function push(): Promise<void> {
  if (busy.value || !next.value) return
  busy.value = true
  const isHit = await props.wand.probe(next.value)
  if (isHit !== null) await probe(next.value, isHit)
  busy.value = false
}
const isRecorded = computed(() => place.value?.found === 'found' && place.value.foundAt !== null)
async function record(): Promise<void> {
  if (!hit.value) return
  await property.change(placeCommands(property.site!, props.box, hit.value, 'found', today()))
}

/** How far the lid lies from the two places that are nearest and known: how it is found again without any of this. */
const offsets = computed(() => {
  const at = hit.value
  if (!at) return ''
  const near = entries(property.site!.places)
    .flatMap(([id, p]) => {
      const spot = id === props.box || p.found !== 'found' ? null : whereIs(p)
      return spot ? [{ tag: p.tag, distance_m: apart_m(at, spot) }] : []
    })
    .sort((a, b) => a.distance_m - b.distance_m)
  const [first, second] = near
  return first && second
    ? t('trace.offsets', {
        first: first.tag,
        firstDistance: metres(first.distance_m),
        second: second.tag,
        secondDistance: metres(second.distance_m),
      })
    : ''
})

/** Steps from a box that is known. */
const known = computed(() =>
  entries(property.site!.places)
    .filter(([id, p]) => id !== props.box && p.found === 'found' && whereIs(p))
    .sort(([, a], [, b]) => byTag(a.tag, b.tag))
    .map(([value, p]) => ({ value, label: tagAndName(p) })),
)
const from = ref(known.value[0]?.value as PlaceId)
const addSteps = (distance_m: number, bearing_deg: number | null) =>
  write({ kind: 'paced', from: from.value, distance_m, bearing_deg })
</script>

<template>
  <div class="stack">
    <section v-if="hit || isRecorded" class="sheet stack found" role="status">
      <h2 v-if="hit && place?.position">
        {{ t('trace.foundIt', { distance: metres(towards(place.position.value, hit).distance_m, 1) }) }}
      </h2>
      <p v-if="offsets">{{ offsets }}</p>
      <p v-if="isRecorded" class="fits">{{ t('trace.recorded', { box: place!.tag }) }}</p>
      <AppButton v-else-if="!property.viewed" look="primary" @click="record">
        {{ t('trace.record', { box: place?.tag ?? '?' }) }}
      </AppButton>
      <div class="row">
        <WorkButton :target="{ kind: 'box', place: box }" :procedure="shipped('raise_box')" />
        <NuxtLink class="button" :to="`/p/${property.held!.id}/boxes/${box}`">
          {{ t('trace.toBox', { box: place?.tag ?? '?' }) }}
        </NuxtLink>
      </div>
    </section>
    <section v-else-if="area && next" class="stack" aria-live="polite">
      <h2 class="next">{{ t('trace.probe', { where }) }}</h2>
      <p class="quiet">{{ t('trace.probeHow') }}</p>
      <div class="row answers">
        <AppButton v-if="wand.connected.value && wand.simulated.value" look="primary" :disabled="busy" @click="push">
          {{ t('trace.probeTake') }}
        </AppButton>
        <AppButton :disabled="weighing" @click="probe(next, false)">{{ t('trace.miss') }}</AppButton>
        <AppButton @click="probe(next, true)">{{ t('trace.hit') }}</AppButton>
      </div>
      <p>{{ t('trace.area', { half: squared(area.half_m2), most: squared(area.most_m2) }) }}</p>
      <p class="quiet">{{ t('trace.speaks', { what: speaks }) }}</p>
    </section>
    <p v-else class="quiet">{{ weighing ? t('trace.weighing') : t('trace.nothing') }}</p>
    <p v-if="probes.length > 0">
      <AppButton look="plain" @click="takeBack(['probe'])">{{ t('trace.takeBack') }}</AppButton>
    </p>
    <details v-if="known.length > 0" class="sheet folds">
      <summary>
        <h2>{{ t('trace.paces') }}</h2>
      </summary>
      <PickOne id="paces-from" v-model="from" :label="t('trace.pacesFrom')" :options="known" />
      <PacedWalk :label="t('trace.pacesAdd')" @walked="addSteps" />
    </details>
  </div>
</template>

<style scoped>
.next {
  font-size: 22px;
  line-height: 1.25;
}
.found {
  border-left: 5px solid var(--fits);
}
@media (max-width: 759px) {
  .answers :deep(.button) {
    min-height: 56px;
    flex: 1;
  }
}
</style>
