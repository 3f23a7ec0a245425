<script setup lang="ts">
import type { Refusal } from '../../core/refusal'
import { NEEDS, type Looking, type Need, type Sort } from '../../core/company'
import { sayRefusal } from '../../words'
import { useOffice } from '../composables/useOffice'
import { optionsOf } from '../lib/options'
import { saveText } from '../lib/save'
import { uploadProperty, type Upload, type UploadProgress } from '../lib/upload'

/** The office’s page: every property, what asks for somebody there, and what begins here. */
const {
  t,
  speaker,
  find,
  looking,
  look,
  asMap,
  show,
  archived,
  rows,
  needs,
  unreachable,
  kept,
  unsent,
  load,
  loadRows,
} = useOffice()
useHead({ title: () => `${t('app.home')} · ${t('app.name')}` })
const beginning = ref(false)
const device = ref(false)
const broken = shallowRef<readonly Refusal[]>([])

const change = (more: Partial<Looking>) => look({ ...looking.value, ...more })
const usual = computed(() => looking.value.find === '' && looking.value.need === null)
const few = computed(() => (rows.value ?? []).flatMap((r) => ('gap' in r ? [] : [r])).slice(0, 4))
const ways = computed(() => [
  { value: 'all', label: t('need.all', { count: needs.value.all ?? rows.value?.length ?? 0 }) },
  ...NEEDS.filter((n) => n === looking.value.need || (needs.value[n] ?? 0) > 0).map((n) => ({
    value: n as string,
    label: t(`need.${n}`, { count: needs.value[n] ?? 0 }),
  })),
])
const choose = (way: string) =>
  change(way === 'all' ? { need: null } : { need: way as Need, sort: 'need' as Sort, down: true })

/** A file on its way in, and how far it is. */
const upload = shallowRef<Upload | null>(null)
const progress = shallowRef<UploadProgress | null>(null)
const stopped = ref(false)
/** A file whose property is here already, waiting for a word on what to do. */
const already = shallowRef<{ file: File; id: string } | null>(null)
const copyName = ref('')

async function take(file: File, name: string | null): Promise<void> {
  broken.value = []
  stopped.value = false
  upload.value = uploadProperty(file, /\.zip$/i.test(file.name), name, (now) => {
    progress.value = now
  })
  const reply = await upload.value.reply
  upload.value = null
  progress.value = null
  if (reply === 'stopped') {
    stopped.value = true
    return
  }
  if (reply.kind === 'ok') {
    already.value = null
    await navigateTo(`/p/${reply.value.id}`)
    return
  }
  if (reply.kind !== 'refused') {
    broken.value = [{ code: 'not_reached', path: [], params: {} }]
    return
  }
  const here = reply.refusals.find((r) => r.code === 'already_here')
  if (here) {
    already.value = { file, id: String(here.params.id) }
    copyName.value = t('properties.copyOf', { name: String(here.params.name ?? '') }).slice(0, 120)
  } else broken.value = reply.refusals
}
/** When visits are due, as a calendar; it may not be reached. */
const noCalendar = ref(false)
async function saveDue(): Promise<void> {
  const { visitsDueCalendar } = await import('../lib/visits-due')
  const calendar = await visitsDueCalendar(t('properties.dueTitle'), (p) => t('properties.dueAt', { name: p.name }))
  noCalendar.value = calendar === null
  if (calendar !== null) saveText('visits due.ics', calendar, 'text/calendar')
}
const percent = computed(() => Math.floor(100 * (progress.value?.ratio ?? 0)))
</script>

<template>
  <PlainPage wide>
    <div class="row title">
      <h1>{{ t('properties.title') }}</h1>
      <span class="row">
        <AppButton look="primary" @click="beginning = true">{{ t('properties.new') }}</AppButton>
        <FileButton
          accept=".json,.zip,application/json,application/zip"
          :label="t('properties.import')"
          :disabled="upload !== null"
          @chosen="take($event, null)"
        />
      </span>
    </div>
    <section v-if="upload" class="sheet stack" role="status">
      <p>{{ t(`properties.${progress?.stage ?? 'sending'}`, { percent }) }}</p>
      <ProgressLine :percent="percent" :label="t('properties.import')" />
      <p>
        <AppButton @click="upload.stop()">{{ t('properties.stop') }}</AppButton>
      </p>
    </section>
    <p v-if="stopped" class="quiet" role="status">{{ t('properties.stopped') }}</p>
    <section v-if="broken.length > 0" class="sheet broken" role="alert">
      <h2>{{ t('properties.broken') }}</h2>
      <p>{{ t('properties.brokenHow') }}</p>
      <ul>
        <li v-for="(r, i) in broken" :key="i">{{ sayRefusal(r, speaker) }}</li>
      </ul>
    </section>
    <p v-if="unreachable" class="sheet row" role="alert">
      {{ kept ? t('device.fromHere') : t('properties.unreachable') }}
      <AppButton @click="load()">{{ t('app.retry') }}</AppButton>
    </p>
    <p v-if="rows === null && !unreachable" class="quiet">{{ t('app.loading') }}</p>
    <p v-else-if="rows !== null && archived && rows.length === 0 && usual" class="quiet">
      {{ t('properties.noneArchived') }}
    </p>
    <template v-else-if="rows !== null">
      <div class="row tools">
        <TextField
          v-model="find"
          class="input find"
          type="search"
          :aria-label="t('properties.find')"
          :placeholder="t('properties.findHow')"
          maxlength="120"
        />
        <PickBar
          v-if="ways.length > 1"
          :model-value="looking.need ?? 'all'"
          :options="ways"
          :label="t('properties.needs')"
          @update:model-value="choose"
        />
        <PickBar
          v-if="rows.length > 0 && !kept"
          :model-value="asMap ? 'map' : 'list'"
          :options="optionsOf(['list', 'map'] as const, (way) => t(`properties.as.${way}`))"
          :label="t('properties.as.how')"
          @update:model-value="show($event === 'map')"
        />
      </div>
      <SavedViews :looking="looking" @look="look" />
      <p v-if="rows.length === 0 && !usual" class="quiet">
        {{ looking.find === '' ? t('properties.noneOf') : t('properties.noMatch', { text: looking.find }) }}
      </p>
      <LazyPropertiesMap
        v-if="asMap && rows.length > 0"
        :rows="rows"
        :looking="looking"
        :unsent="unsent"
        @sort="(sort, down) => change({ sort, down })"
        @seen="loadRows"
      />
      <PropertyTable
        v-else-if="rows.length > 0"
        :rows="rows"
        :looking="looking"
        :unsent="unsent"
        @sort="(sort, down) => change({ sort, down })"
        @seen="loadRows"
      />
      <FirstSteps v-if="!archived && usual && rows.length <= 3" :properties="few" />
    </template>
    <p>
      <AppButton look="plain" @click="archived = !archived">
        {{ archived ? t('properties.current') : t('properties.archived') }}
      </AppButton>
      <AppButton look="plain" @click="device = true">{{ t('device.title') }}</AppButton>
      <NuxtLink to="/procedures" no-prefetch class="button plain">{{ t('properties.procedures') }}</NuxtLink>
      <AppButton v-if="rows !== null && rows.length > 0 && !kept" look="plain" @click="saveDue">
        {{ t('properties.due') }}
      </AppButton>
      <NuxtLink to="/failures" no-prefetch class="button plain">{{ t('properties.failures') }}</NuxtLink>
    </p>
    <p v-if="noCalendar" class="fault" role="alert">{{ t('properties.unreachable') }}</p>
    <p class="caution">{{ t('app.localCode') }}</p>
    <LazyAppDialog v-if="device" v-model:visible="device" :title="t('device.title')">
      <DevicePanel />
    </LazyAppDialog>
    <LazyNewProperty v-if="beginning" v-model:visible="beginning" />
    <LazyAppDialog
      v-if="already"
      :visible="already !== null"
      :title="t('properties.here')"
      @update:visible="already = null"
    >
      <form v-if="already" class="stack" @submit.prevent="take(already.file, copyName.trim())">
        <p>{{ t('properties.hereHow') }}</p>
        <div class="field">
          <label for="copy-name">{{ t('properties.copyName') }}</label>
          <TextField id="copy-name" v-model="copyName" maxlength="120" />
        </div>
        <div class="row end">
          <NuxtLink class="button" :to="`/p/${already.id}`">{{ t('properties.open') }}</NuxtLink>
          <AppButton look="primary" type="submit" :disabled="copyName.trim() === '' || upload !== null">
            {{ t('properties.asCopy') }}
          </AppButton>
        </div>
      </form>
    </LazyAppDialog>
  </PlainPage>
</template>

<style scoped>
.title {
  justify-content: space-between;
}
.find {
  flex: 1 1 260px;
  max-width: 420px;
}
.broken {
  border-left: 5px solid var(--fault);
}
.broken ul {
  list-style: disc;
  padding-left: 20px;
}
</style>
