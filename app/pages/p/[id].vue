<script setup lang="ts">
import { Search } from '@lucide/vue'
import { photosOf } from '../../../core/record'
import { entries } from '../../../core/site'
import { useSpeaker } from '../../composables/useSpeaker'
import { laterWords } from '../../lib/later-words'
import { keepPictures } from '../../lib/keep-pictures'
import { PLACES, tabAt } from '../../lib/places'
import { keptByWorker } from '../../lib/service-worker'
import { useProperty } from '../../stores/property'

const route = useRoute()
const property = useProperty()
const units = () => property.site?.settings.units ?? ({ length: 'm', temperature: 'C' } as const)
const { t } = useSpeaker(units)
const id = computed(() => String(route.params.id))
watch(id, (now) => void property.load(now), { immediate: true })
watch(
  () => route.fullPath,
  () => {
    said.value = ''
  },
)
useHead({ title: () => `${property.site?.about.name ?? t('app.loading')} · ${t('app.name')}` })

const base = computed(() => `/p/${id.value}`)
/** Where in the property the page is: its place, and the tab of it. */
const here = computed(() => tabAt(route.path.slice(base.value.length).replace(/\/$/, '')))
const places = computed(() =>
  PLACES.map(({ key, tabs, atThumb }) => ({
    to: base.value + tabs[0]!.path,
    label: t(`places.${key}`),
    here: here.value?.place.key === key,
    later: tabs[0]!.later,
    atThumb,
  })),
)
/** Four places at the thumb, in the order of the field; the rest behind “more”. */
const atThumb = computed(() => places.value.filter((p) => p.atThumb))
const others = computed(() => places.value.filter((p) => !p.atThumb))
const more = ref(false)
watch(
  () => route.fullPath,
  () => {
    more.value = false
  },
)
const controllers = computed(() => (property.site ? entries(property.site.controllers) : []))
const selected = computed(() => (typeof route.query.station === 'string' ? route.query.station : null))
const inSweep = computed(() => route.name === 'p-id-test-job')
/** One thing at a time, the whole page for it. */
const atWork = computed(() => inSweep.value || route.name === 'p-id-work-procedures-job')

/** Only where a procedure that puts a tone on was begun is there anything to say of one. */
const mayTone = computed(() =>
  Object.values(property.facts?.jobs ?? {}).some(
    (j) => j.follows?.id === 'hook_up' || j.follows?.own?.from === 'hook_up',
  ),
)
/** What one has open is told to the others who are here. */
watch(
  () => property.status === 'ready' && property.held?.id,
  (now, _before, onCleanup) => {
    if (now) onCleanup(property.listen())
  },
  { immediate: true },
)
watch(
  () => ({
    tab: here.value?.tab.label ?? 'places.threads',
    job: typeof route.params.job === 'string' ? route.params.job : null,
    box: typeof route.params.place === 'string' ? route.params.place : null,
  }),
  (now) => property.showDoing(now),
  { immediate: true },
)

/** Letters belong to a field that is typed in; a reading's field takes its own keys first. */
const isTyping = (at: EventTarget | null) =>
  (at instanceof HTMLInputElement && !at.dataset.sweep && !['checkbox', 'radio', 'range'].includes(at.type)) ||
  at instanceof HTMLTextAreaElement
/** A cell that still says what is on record has nothing of its own to undo. */
const isUntouched = (at: EventTarget | null) => at instanceof HTMLInputElement && at.dataset.was === at.value

const [keys, find] = [ref(false), ref(false)]
const said = ref('')
function onKey(event: KeyboardEvent): void {
  const typing = isTyping(event.target)
  if (
    (event.ctrlKey || event.metaKey) &&
    event.key.toLowerCase() === 'z' &&
    (!typing || isUntouched(event.target)) &&
    !inSweep.value &&
    property.undoable &&
    property.pending === 0 &&
    !property.viewed
  ) {
    said.value = t('app.tookBack', { revision: property.undoable.revision })
    void property.undo()
    event.preventDefault()
    return
  }
  if (typing || event.ctrlKey || event.metaKey || event.altKey || keys.value || find.value) return
  if (event.key === '?') keys.value = true
  else if (event.key === '/') find.value = true
  else return
  event.preventDefault()
}
onMounted(() => window.addEventListener('keydown', onKey))

/**
 * Pages that are no part of the first load come when it is over, so that they open without a signal too: with the whole
 * application, or one by one where the browser cannot keep that.
 */
let left = false
/** A little after a property stands, its pictures are fetched for when there is no signal. */
const PICTURES_AFTER_ms = 6000
let pictures: ReturnType<typeof setTimeout> | undefined
watch(
  () => (property.status === 'ready' && property.line === 'up' ? property.held?.id : undefined),
  (now) => {
    clearTimeout(pictures)
    if (now === undefined) return
    pictures = setTimeout(() => {
      if (property.held?.id !== now || !property.site || !property.facts) return
      const underlays = Object.values(property.site.underlays).map((u) => u.sha256)
      const photos = photosOf(property.facts).map(({ photo }) => photo)
      keepPictures(now, { underlays, photos }).catch(() => undefined)
    }, PICTURES_AFTER_ms)
  },
  { immediate: true },
)
onMounted(async () => {
  if ((await keptByWorker()) || left) return
  void laterWords().catch(() => {
    /* asked for again with the page that needs them */
  })
  const paths = PLACES.flatMap(({ tabs }) => tabs.filter((tab) => tab.later).map((tab) => tab.path))
  for (const path of [...paths, '/boxes/x', '/work/procedures/x', '/work/quote/x', '/cores/x', '/trace/x'])
    void preloadRouteComponents(base.value + path).catch(() => {
      /* asked for again when it is opened */
    })
})
onBeforeUnmount(() => {
  left = true
  clearTimeout(pictures)
})
onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
/** In a sweep the cursor goes to the thread; elsewhere a box opens. */
const goTo = (target: string | null, place: string | null) =>
  place !== null && !inSweep.value
    ? navigateTo(`/p/${id.value}/boxes/${place}`)
    : target === null
      ? undefined
      : navigateTo(
          inSweep.value
            ? { query: { ...route.query, station: target } }
            : { path: `/p/${id.value}`, query: { ...route.query, station: target } },
        )
</script>

<template>
  <div v-if="property.status === 'ready' && property.site" class="frame" :class="{ sweeping: inSweep }">
    <aside class="rail">
      <NuxtLink to="/" no-prefetch class="brand">
        <AppMark />
        <strong>{{ t('app.name') }}</strong>
      </NuxtLink>
      <nav :aria-label="property.site.about.name">
        <RailController
          v-for="[controller] in controllers"
          :key="controller"
          :controller="controller"
          :selected="selected"
        />
      </nav>
    </aside>
    <header class="bar">
      <NuxtLink to="/" no-prefetch class="phone-home" :aria-label="t('app.home')"><AppMark /></NuxtLink>
      <nav class="places" :aria-label="t('app.name')">
        <NuxtLink
          v-for="p in places"
          :key="p.to"
          :to="p.to"
          :prefetch="!p.later"
          :class="{ here: p.here }"
          :aria-current="p.here ? 'page' : undefined"
        >
          {{ p.label }}
        </NuxtLink>
      </nav>
      <div class="tools">
        <AppButton look="plain" class="phone-find" :aria-label="t('app.find')" @click="find = true">
          <Search :size="22" />
        </AppButton>
        <AppButton look="plain" class="tool" @click="find = true">
          {{ t('app.find') }}
          <kbd>/</kbd>
        </AppButton>
        <AppButton look="plain" class="tool" @click="keys = true">
          {{ t('app.keys') }}
          <kbd>?</kbd>
        </AppButton>
        <LazyPeopleHere v-if="property.others.length > 0" />
        <ThemeButton />
        <SaveStatus />
      </div>
    </header>
    <main id="work" tabindex="-1" class="work">
      <RefusedMessages />
      <LazyToneLine v-if="mayTone" />
      <p v-if="said" class="quiet told" role="status">{{ said }}</p>
      <p v-if="property.viewed" class="sheet past row">
        <span>{{ t('app.viewing', { revision: property.viewed.revision }) }}</span>
        {{ ' ' }}
        <AppButton @click="property.view(null)">{{ t('app.backToNow') }}</AppButton>
      </p>
      <PlaceTabs
        v-if="here && here.place.tabs.length > 1 && !atWork"
        :place="here.place"
        :base="base"
        :current="here.tab.path"
      />
      <NuxtPage />
    </main>
    <nav v-if="more" id="more" class="more" :aria-label="t('places.more')">
      <NuxtLink
        v-for="p in others"
        :key="p.to"
        :to="p.to"
        :class="{ here: p.here }"
        :aria-current="p.here ? 'page' : undefined"
      >
        {{ p.label }}
      </NuxtLink>
      <NuxtLink to="/" no-prefetch>{{ t('places.properties') }}</NuxtLink>
    </nav>
    <nav class="thumb" :aria-label="t('app.name')">
      <NuxtLink
        v-for="p in atThumb"
        :key="p.to"
        :to="p.to"
        :prefetch="!p.later"
        :class="{ here: p.here }"
        :aria-current="p.here ? 'page' : undefined"
      >
        {{ p.label }}
      </NuxtLink>
      <AppButton
        look="bare"
        :class="{ here: more || others.some((p) => p.here) }"
        :aria-expanded="more"
        aria-controls="more"
        @click="more = !more"
      >
        {{ t('places.more') }}
      </AppButton>
    </nav>
    <LazyKeysDialog v-if="keys" v-model:visible="keys" />
    <LazyFindDialog v-if="find" v-model:visible="find" :site="property.site" @go="goTo" />
  </div>
  <main v-else id="work" tabindex="-1" class="page-waits stack" aria-live="polite">
    <p v-if="property.status === 'loading'" class="quiet">{{ t('app.loading') }}</p>
    <LazyRepairView v-else-if="property.status === 'unreadable'" :id="id" />
    <template v-else>
      <h1>
        {{
          property.outdated
            ? t('app.otherVersion')
            : property.status === 'missing'
              ? t('refusal.no_such_property')
              : t('refusal.not_reached')
        }}
      </h1>
      <p class="row">
        <AppButton v-if="property.status === 'unreachable'" look="primary" @click="property.load(id)">
          {{ t('app.retry') }}
        </AppButton>
        <NuxtLink to="/" class="button">{{ t('app.toProperties') }}</NuxtLink>
      </p>
    </template>
  </main>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template: 52px 1fr / 216px 1fr;
  grid-template-areas: 'rail bar' 'rail work';
  min-height: 100vh;
}
.rail {
  grid-area: rail;
  background: var(--sheet);
  border-right: 1px solid var(--rule);
  position: sticky;
  top: 0;
  height: 100vh;
  overflow: auto;
}
.brand {
  display: flex;
  align-items: center;
  gap: 10px;
  height: 52px;
  padding: 0 16px;
  border-bottom: 1px solid var(--rule);
  color: inherit;
  text-decoration: none;
}
.bar {
  grid-area: bar;
  display: flex;
  align-items: center;
  justify-content: space-between;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule);
  padding: 0 16px 0 8px;
  position: sticky;
  top: 0;
  z-index: 10;
}
.places {
  display: flex;
  align-self: stretch;
}
.places a {
  display: flex;
  align-items: center;
  padding: 0 12px;
  color: var(--quiet);
  text-decoration: none;
  border-bottom: 3px solid transparent;
  border-top: 3px solid transparent;
}
.places a.here {
  color: var(--ink);
  font-weight: 700;
  border-bottom-color: var(--copper);
}
.tools {
  display: flex;
  align-items: center;
  gap: 4px;
}
.tool {
  color: var(--quiet);
  font-weight: 400;
  font-size: 14px;
}
kbd {
  font: 13px var(--figures);
  border: 1px solid var(--rule);
  border-radius: 4px;
  padding: 0 5px;
}
.phone-home,
.phone-find,
.thumb,
.more {
  display: none;
}
.work {
  grid-area: work;
  padding: 16px 20px 32px;
  min-width: 0;
}
.told {
  margin-bottom: 8px;
}
.past {
  border-left: 5px solid var(--doubtful);
  margin-bottom: 16px;
  justify-content: space-between;
}
.page-waits {
  max-width: 560px;
  margin: 15vh auto;
  padding: 24px;
}
@media (max-width: 759px) {
  .frame {
    grid-template: 52px 1fr 56px / 1fr;
    grid-template-areas: 'bar' 'work' 'thumb';
    min-height: 100dvh;
  }
  .rail,
  .places,
  .tool {
    display: none;
  }
  .phone-find {
    display: flex;
    min-width: 48px;
    color: var(--quiet);
  }
  .phone-home {
    display: flex;
    align-items: center;
    min-width: 48px;
    min-height: 48px;
    padding-left: 8px;
  }
  .work {
    padding: 12px 16px 24px;
  }
  .thumb {
    grid-area: thumb;
    display: flex;
    position: sticky;
    bottom: 0;
    background: var(--sheet);
    border-top: 1px solid var(--rule);
    z-index: 10;
  }
  .more {
    display: grid;
    position: fixed;
    right: 0;
    bottom: 56px;
    min-width: 200px;
    background: var(--sheet);
    border: 1px solid var(--rule);
    z-index: 12;
  }
  .more a {
    display: flex;
    align-items: center;
    min-height: 52px;
    padding: 0 20px;
    color: inherit;
    text-decoration: none;
    border-bottom: 1px solid var(--rule);
  }
  .more a.here {
    color: var(--copper);
    font-weight: 700;
  }
  .thumb a,
  .thumb button {
    flex: 1;
    border: 0;
    background: none;
    display: flex;
    align-items: center;
    justify-content: center;
    min-height: 56px;
    font-size: 15px;
    color: var(--quiet);
    text-decoration: none;
  }
  .thumb a.here,
  .thumb button.here {
    color: var(--copper);
    font-weight: 700;
  }
  .sweeping .work {
    padding: 0;
  }
}
</style>
