<script setup lang="ts">
import { byTag, entries, type PlaceId, type SpliceId } from '../../../../../core/site'
import { boxJoints, brokenRules, connectorsForVan, looseCommands, planBoxCommands } from '../../../../../core/splice'
import { sayBreach } from '../../../../../words/breach'
import { usePhotos } from '../../../../composables/usePhotos'
import { useWiringPage } from '../../../../composables/useWiringPage'

/** One box: who is joined to whom, the cores that pass, what is to be made and what to look at. */
const { site, t, speaker, sentences, doing, fixed } = useWiringPage()
const route = useRoute()
const place = computed(() => String(route.params.place) as PlaceId)
const record = computed(() => site.value.places[place.value] ?? null)
const list = computed(() =>
  entries(site.value.places)
    .sort(([, a], [, b]) => byTag(a.tag, b.tag))
    .map(([id, p]) => ({ id, tag: p.tag })),
)
const at = computed(() => list.value.findIndex((p) => p.id === place.value))
const joints = computed(() => (record.value ? boxJoints(site.value, place.value) : []))
const rules = computed(() => brokenRules(site.value).filter((r) => r.place === place.value))
const van = computed(() => (record.value ? connectorsForVan(site.value, place.value) : []))
const unsettled = computed(() =>
  joints.value.some((j) => j.holds.some((h) => h.record.connector === 'unknown' || h.misfit !== null)),
)
const link = (id: string) => `/p/${String(route.params.id)}/boxes/${id}`
const { ofPlace } = usePhotos()
const photos = computed(() => ofPlace(place.value))
const takeApart = (splices: readonly SpliceId[]) =>
  doing({
    ok: true,
    value: looseCommands(
      site.value,
      splices.flatMap((s) => site.value.splices[s]?.ends ?? []),
    ),
  })
</script>

<template>
  <div v-if="record" class="stack">
    <div class="row top">
      <h1>
        <span class="figure">{{ record.tag }}</span>
        {{ ' ' }}
        <span class="quiet">
          {{ record.name || t(`boxes.kind.${record.kind}`)
          }}{{ record.found === 'found' ? '' : `, ${t(`boxes.found.${record.found}`)}` }}
        </span>
      </h1>
      <nav class="row" :aria-label="t('boxes.title')">
        <NuxtLink
          v-if="at > 0"
          class="button"
          :to="link(list[at - 1]!.id)"
          :aria-label="`${t('boxes.previous')}: ${list[at - 1]!.tag}`"
        >
          ← {{ list[at - 1]!.tag }}
        </NuxtLink>
        <NuxtLink
          v-if="at < list.length - 1"
          class="button"
          :to="link(list[at + 1]!.id)"
          :aria-label="`${t('boxes.next')}: ${list[at + 1]!.tag}`"
        >
          {{ list[at + 1]!.tag }} →
        </NuxtLink>
        <NuxtLink class="button plain" :to="`/p/${String(route.params.id)}/boxes`">{{ t('boxes.back') }}</NuxtLink>
      </nav>
    </div>
    <p class="caution">{{ t('boxes.care') }}</p>
    <ul v-if="sentences.length > 0" class="sheet wrong" role="alert">
      <li v-for="s in sentences" :key="s">{{ s }}</li>
    </ul>
    <section v-if="rules.length > 0" class="sheet rules">
      <h2 class="sr-only">{{ t('boxes.all') }}</h2>
      <p v-for="(r, i) in rules" :key="i">
        <StateMark :state="r.weight === 'wrong' ? 'fault' : 'doubtful'" />
        {{ sayBreach(r, speaker) }}
      </p>
    </section>
    <BoxCensus :site="site" :place="place" :fixed="fixed" @keep="doing" />
    <div v-if="joints.length > 0" class="row title">
      <h2>{{ t('boxes.picture') }}</h2>
      <AppButton v-if="!fixed && unsettled" look="primary" @click="doing(planBoxCommands(site, place))">
        {{ t('boxes.planBox') }}
      </AppButton>
    </div>
    <div class="joints">
      <BoxJointCard
        v-for="j in joints"
        :key="j.id"
        :site="site"
        :joint="j"
        :fixed="fixed"
        @keep="doing"
        @open="takeApart"
      />
    </div>
    <section v-if="van.length > 0" class="sheet van">
      <h2>{{ t('boxes.van') }}</h2>
      <p class="row">
        <span v-for="v in van" :key="v.kind">
          <strong class="figure">{{ v.count }}</strong>
          × {{ t(`connector.${v.kind}`) }}
        </span>
      </p>
    </section>
    <section class="sheet stack">
      <div class="row title">
        <h2>{{ t('places.photos') }}</h2>
        <span v-if="!fixed" class="row">
          <NuxtLink
            class="button"
            :prefetch="false"
            :to="{ path: `/p/${String(route.params.id)}/work/findings`, query: { box: place } }"
          >
            {{ t('boxes.finding') }}
          </NuxtLink>
          <PhotoTaker :of="{ on: { kind: 'box', place } }" />
        </span>
      </div>
      <PhotoStrip v-if="photos.length > 0" :photos="photos" />
    </section>
    <WorkHere :target="{ kind: 'box', place }" />
    <BoxSequencer v-if="!fixed" :key="place" :place="place" />
    <BoxEnds :site="site" :place="place" :fixed="fixed" @keep="doing" />
    <BoxDetails :site="site" :place="place" :fixed="fixed" @keep="doing" />
  </div>
  <p v-else class="stack">
    <span>{{ t('app.notFound') }}</span>
    <NuxtLink :to="`/p/${String(route.params.id)}/boxes`" class="button">{{ t('boxes.back') }}</NuxtLink>
  </p>
</template>

<style scoped>
.top,
.title {
  justify-content: space-between;
}
.joints {
  columns: 430px;
  column-gap: 12px;
}
.joints > * {
  break-inside: avoid;
  margin-bottom: 12px;
}
.rules {
  display: grid;
  gap: 6px;
  border-left: 5px solid var(--doubtful);
}
.wrong {
  color: var(--fault);
  font-weight: 600;
  border-left: 5px solid var(--fault);
}
.van {
  display: grid;
  gap: 6px;
}
</style>
