<script setup lang="ts">
import { MOST_BYTES } from '../../core/formats/limits'
import type { Refusal } from '../../core/refusal'
import { sayRefusal } from '../../words'
import { dayText, useSpeaker } from '../composables/useSpeaker'
import { fetchProperties, postPropertyFile, putPicture, type Listed } from '../lib/api'

const { t, speaker } = useSpeaker(() => ({ length: 'm', temperature: 'C' }))
useHead({ title: () => `${t('app.home')} · ${t('app.name')}` })

const properties = shallowRef<readonly Listed[] | null>(null)
const unreachable = ref(false)
const beginning = ref(false)
const filter = ref('')
const busy = ref(false)
const broken = shallowRef<readonly Refusal[]>([])
/** A file whose property is here already, waiting for a word on what to do. */
const already = shallowRef<{ text: string; id: string } | null>(null)
const copyName = ref('')
const chooser = ref<HTMLInputElement | null>(null)

async function load(): Promise<void> {
  const reply = await fetchProperties()
  unreachable.value = reply.kind !== 'ok'
  if (reply.kind === 'ok') properties.value = reply.value.properties
}
onMounted(load)

/** More than this nobody reads; a few letters of the name find the rest. */
const MOST_SHOWN = 100
const matching = computed(() =>
  (properties.value ?? []).filter((p) => p.name.toLowerCase().includes(filter.value.trim().toLowerCase())),
)
const shown = computed(() => matching.value.slice(0, MOST_SHOWN))

async function chosen(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  broken.value = []
  pictures = new Map()
  if (/\.zip$/i.test(file.name)) {
    const { unpack } = await import('../lib/property-file')
    const packed = unpack(new Uint8Array(await file.arrayBuffer()))
    pictures = packed?.pictures ?? pictures
    if (packed) await take(packed.text, null)
    else broken.value = [{ code: 'not_our_file', path: [], params: {} }]
  } else if (file.size > MOST_BYTES) broken.value = [{ code: 'too_large', path: [], params: {} }]
  else await take(await file.text(), null)
  input.value = ''
}

/** What came beside the file and goes in once the property is there. */
let pictures: ReadonlyMap<string, Blob> = new Map()

async function take(text: string, name: string | null): Promise<void> {
  busy.value = true
  const reply = await postPropertyFile(text, name)
  busy.value = false
  if (reply.kind === 'ok') {
    already.value = null
    for (const [sha256, blob] of pictures) await putPicture(reply.value.id, sha256, blob)
    await navigateTo(`/p/${reply.value.id}`)
    return
  }
  if (reply.kind === 'unreachable') {
    broken.value = [{ code: 'database_down', path: [], params: {} }]
    return
  }
  const here = reply.refusals.find((r) => r.code === 'already_here')
  if (here) {
    already.value = { text, id: String(here.params.id) }
    copyName.value = t('properties.copyOf', {
      name: properties.value?.find((p) => p.id === here.params.id)?.name ?? '',
    })
  } else broken.value = reply.refusals
}
</script>

<template>
  <div class="page">
    <header class="top">
      <AppMark />
      <strong>{{ t('app.name') }}</strong>
    </header>
    <main id="work" class="stack">
      <div class="row title">
        <h1>{{ t('properties.title') }}</h1>
        <span class="row">
          <button type="button" class="button primary" @click="beginning = true">{{ t('properties.new') }}</button>
          <button type="button" class="button" :disabled="busy" @click="chooser?.click()">
            {{ busy ? t('properties.importing') : t('properties.import') }}
          </button>
        </span>
      </div>
      <input
        ref="chooser"
        type="file"
        accept=".json,.zip,application/json,application/zip"
        class="sr-only"
        tabindex="-1"
        :aria-label="t('properties.import')"
        @change="chosen"
      />
      <section v-if="broken.length > 0" class="sheet broken" role="alert">
        <h2>{{ t('properties.broken') }}</h2>
        <p>{{ t('properties.brokenHow') }}</p>
        <ul>
          <li v-for="(r, i) in broken" :key="i">{{ sayRefusal(r, speaker) }}</li>
        </ul>
      </section>
      <p v-if="unreachable" class="sheet row" role="alert">
        {{ t('properties.unreachable') }}
        <button type="button" class="button" @click="load">{{ t('app.retry') }}</button>
      </p>
      <p v-else-if="properties === null" class="quiet">{{ t('app.loading') }}</p>
      <section v-else-if="properties.length === 0" class="sheet">
        <h2>{{ t('properties.none') }}</h2>
        <p>{{ t('properties.noneHow') }}</p>
      </section>
      <template v-else>
        <TextField
          v-if="properties.length > 5"
          v-model="filter"
          class="input"
          :aria-label="t('properties.filter')"
          :placeholder="t('properties.filter')"
        />
        <p v-if="shown.length === 0" class="quiet">{{ t('properties.noMatch', { text: filter }) }}</p>
        <ul class="list">
          <li v-for="p in shown" :key="p.id">
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
        <p v-if="matching.length > shown.length" class="quiet">
          {{ t('properties.more', { count: matching.length - shown.length }) }}
        </p>
      </template>
      <p class="caution">{{ t('properties.code') }}</p>
    </main>
    <LazyNewProperty v-if="beginning" v-model:visible="beginning" />
    <LazyAppDialog
      v-if="already"
      :visible="already !== null"
      :title="t('properties.here')"
      @update:visible="already = null"
    >
      <form v-if="already" class="stack" @submit.prevent="take(already.text, copyName.trim())">
        <p>{{ t('properties.hereHow') }}</p>
        <div class="field">
          <label for="copy-name">{{ t('properties.copyName') }}</label>
          <TextField id="copy-name" v-model="copyName" maxlength="120" />
        </div>
        <div class="row end">
          <NuxtLink class="button" :to="`/p/${already.id}`">{{ t('properties.open') }}</NuxtLink>
          <button class="button primary" :disabled="copyName.trim() === '' || busy">
            {{ t('properties.asCopy') }}
          </button>
        </div>
      </form>
    </LazyAppDialog>
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
  margin: 0 auto;
  padding: 0 16px 48px;
}
.top {
  display: flex;
  align-items: center;
  gap: 10px;
  height: 52px;
  margin-bottom: 24px;
}
.title {
  justify-content: space-between;
}
.list {
  display: grid;
  gap: 8px;
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
.end {
  justify-content: flex-end;
}
</style>
