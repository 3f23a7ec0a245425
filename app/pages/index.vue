<script setup lang="ts">
import type { Refusal } from '../../core/refusal'
import { sayRefusal } from '../../words'
import { dayText, useSpeaker } from '../composables/useSpeaker'
import { fetchProperties, type Listed } from '../lib/api'
import { keepSmall } from '../lib/keep-small'
import { keptProperties } from '../lib/kept-properties'
import { uploadProperty, type Upload, type UploadProgress } from '../lib/upload'

const { t, speaker } = useSpeaker(() => ({ length: 'm', temperature: 'C' }))
useHead({ title: () => `${t('app.home')} · ${t('app.name')}` })

const properties = shallowRef<readonly Listed[] | null>(null)
const total = ref(0)
const archived = ref(false)
const unreachable = ref(false)
const beginning = ref(false)
const [kept, device] = [ref(false), ref(false)]
const filter = ref('')
const broken = shallowRef<readonly Refusal[]>([])

let asked = 0
/** Loads the list from its beginning, or the page after what is there. */
async function load(more = false): Promise<void> {
  const mine = ++asked
  const after = more ? (properties.value?.at(-1)?.id ?? null) : null
  const reply = await fetchProperties(filter.value.trim(), archived.value, after)
  if (mine !== asked) return
  unreachable.value = reply.kind !== 'ok'
  if (reply.kind !== 'ok') {
    await showKept(mine)
    return
  }
  kept.value = false
  if (!more && !archived.value) void keepSmall(reply.value.properties).catch(() => undefined)
  properties.value = more ? [...(properties.value ?? []), ...reply.value.properties] : reply.value.properties
  total.value = reply.value.total
}
/** Without a signal: what this device keeps, by the same words. */
async function showKept(mine: number): Promise<void> {
  const words = filter.value.trim().toLowerCase()
  const here = (await keptProperties().catch(() => [])).filter((k) => k.name.toLowerCase().includes(words))
  if (mine !== asked || here.length === 0 || archived.value) return
  properties.value = here.map((k) => ({ ...k, archived: false }))
  total.value = here.length
  kept.value = true
}
onMounted(load)
/** A few letters are typed before the list is asked for anew. */
let soon: ReturnType<typeof setTimeout> | undefined
watch(filter, () => {
  clearTimeout(soon)
  soon = setTimeout(() => void load(), 200)
})
watch(archived, () => void load())

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
const percent = computed(() => Math.floor(100 * (progress.value?.ratio ?? 0)))
</script>

<template>
  <PlainPage>
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
    <p v-if="properties === null && !unreachable" class="quiet">{{ t('app.loading') }}</p>
    <p v-else-if="properties !== null && archived && properties.length === 0 && filter === ''" class="quiet">
      {{ t('properties.noneArchived') }}
    </p>
    <template v-else-if="properties !== null">
      <TextField
        v-if="total > 5 || filter !== ''"
        v-model="filter"
        class="input"
        :aria-label="t('properties.filter')"
        :placeholder="t('properties.filter')"
      />
      <p v-if="properties.length === 0 && filter !== ''" class="quiet">
        {{ t('properties.noMatch', { text: filter }) }}
      </p>
      <ul class="sheets">
        <li v-for="p in properties" :key="p.id">
          <NuxtLink :to="`/p/${p.id}`" class="sheet property">
            <h2>{{ p.name }}</h2>
            <p class="quiet">
              {{ t('properties.controllers', p.controllers) }} · {{ t('properties.stations', p.stations) }} ·
              {{ t('properties.visits', p.visits)
              }}{{ p.lastVisit ? `, ${t('properties.last', { day: dayText(p.lastVisit) })}` : '' }}
            </p>
          </NuxtLink>
        </li>
      </ul>
      <p v-if="total > properties.length" class="row">
        <span class="quiet">{{ t('properties.more', { count: total - properties.length }) }}</span>
        <AppButton @click="load(true)">{{ t('properties.next') }}</AppButton>
      </p>
      <FirstSteps v-if="!archived && filter === '' && total <= 3" :properties="properties" />
    </template>
    <p>
      <AppButton look="plain" @click="archived = !archived">
        {{ archived ? t('properties.current') : t('properties.archived') }}
      </AppButton>
      <AppButton look="plain" @click="device = true">{{ t('device.title') }}</AppButton>
      <NuxtLink to="/procedures" no-prefetch class="button plain">{{ t('properties.procedures') }}</NuxtLink>
    </p>
    <p class="caution">{{ t('properties.code') }}</p>
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
.property {
  display: block;
  text-decoration: none;
  color: inherit;
}
.property:hover {
  border-color: var(--copper);
}
.broken {
  border-left: 5px solid var(--fault);
}
.broken ul {
  list-style: disc;
  padding-left: 20px;
}
</style>
