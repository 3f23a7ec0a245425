<script setup lang="ts">
import { MOST_BYTES, readGeoJson, readGpx, writeGeoJson, writeGpx, type Carried } from '../../../../../core/formats'
import {
  bendCommands,
  cableAlong,
  drawnDistances_m,
  newPlaceCommands,
  placeCommands,
  takeIn,
  whereIs,
} from '../../../../../core/map'
import { lengthText } from '../../../../../core/quantity'
import { refusal, refused } from '../../../../../core/refusal'
import {
  byTag,
  entries,
  type CableId,
  type PlaceId,
  type Point,
  type StopId,
  type UnderlayId,
} from '../../../../../core/site'
import { unbroken } from '../../../../composables/useSpeaker'
import { useWiringPage } from '../../../../composables/useWiringPage'
import { pictureOf, sendPictures, takePicture } from '../../../../lib/pictures'
import { saveText } from '../../../../lib/save'
import type { MapMode, MapThing } from '../../../../lib/map-view'
import { today } from '../../../../lib/today'

/** The property on a map: boxes, cables, sleeves and hazards, a picture underneath; open formats in and out. */
const { site, t, keep, sentences, doing, fixed } = useWiringPage()
const route = useRoute()
const id = String(route.params.id)
const board = ref<{
  fit(): void
  finish(): void
  centre(at: Point): void
  pictureSpot(at: Point): { px: number; py: number } | null
} | null>(null)

const mode = ref<MapMode>('choose')
const chosen = shallowRef<MapThing | null>(null)
const waiting = ref<PlaceId | null>(null)
const MODES = computed(() => [
  { mode: 'choose' as const, label: t('map.select') },
  { mode: 'move' as const, label: t('map.move') },
  { mode: 'place' as const, label: t('map.addBox') },
  { mode: 'cable' as const, label: t('map.newCable') },
  { mode: 'bend' as const, label: t('map.route') },
])
const places = computed(() =>
  entries(site.value.places)
    .sort(([, a], [, b]) => byTag(a.tag, b.tag))
    .map(([pid, place]) => ({ id: pid, place, at: whereIs(place) })),
)
const unplaced = computed(() => places.value.filter((p) => p.at === null))
const cables = computed(() =>
  entries(site.value.cables)
    .filter(([, c]) => c.kind !== 'jumper')
    .sort(([a, x], [b, y]) => byTag(x.tag ?? a, y.tag ?? b))
    .map(([cid, c]) => ({
      id: cid,
      tag: c.tag ?? cid,
      name: c.name,
      drawn_m: drawnDistances_m(site.value, c).at(-1) ?? null,
    })),
)
const place = computed(() =>
  chosen.value?.kind === 'place' && site.value.places[chosen.value.id] ? chosen.value.id : null,
)
const cable = computed(() =>
  chosen.value?.kind === 'cable' && site.value.cables[chosen.value.id] ? chosen.value.id : null,
)
function choose(thing: MapThing | null): void {
  if (tying.value) return
  chosen.value = thing
}
function pick(pid: PlaceId): void {
  chosen.value = { kind: 'place', id: pid }
  const at = places.value.find((p) => p.id === pid)?.at
  if (at) {
    waiting.value = null
    board.value?.centre(at)
  } else {
    waiting.value = pid
    mode.value = 'place'
  }
}
async function clicked(at: Point): Promise<void> {
  if (tying.value && !spot.value) {
    spot.value = board.value?.pictureSpot(at) ?? null
    told.value = spot.value ? [] : [t('map.offPicture')]
    return
  }
  if (mode.value !== 'place' || fixed.value) return
  if (waiting.value) {
    if (await keep({ ok: true, value: placeCommands(site.value, waiting.value, at, 'drawn', today()) })) {
      waiting.value = null
      mode.value = 'choose'
    }
    return
  }
  const made = newPlaceCommands(site.value, at, Object.keys(site.value.places).length === 0 ? 'cabinet' : 'valve_box')
  if (await keep({ ok: true, value: made.commands })) chosen.value = { kind: 'place', id: made.id as PlaceId }
}
const moved = (pid: PlaceId, to: Point) =>
  doing({
    ok: true,
    value: placeCommands(site.value, pid, to, site.value.places[pid]!.foundAt ? 'found' : 'drawn', today()),
  })
const bent = (cid: CableId, stop: StopId, bends: Point[]) =>
  doing({ ok: true, value: bendCommands(site.value, cid, stop, bends) })
async function drew(line: Point[]): Promise<void> {
  if (await keep(cableAlong(site.value, line))) mode.value = 'choose'
}

// Open formats.
const told = ref<string[]>([])
const leftText = (left: Carried<unknown>['left']) =>
  left.length === 0
    ? []
    : [t('carried.title', { list: left.map((l) => t(`carried.${l.code}`, { count: l.count })).join(', ') })]
function save(format: 'geojson' | 'gpx'): void {
  const written = format === 'geojson' ? writeGeoJson(site.value) : writeGpx(site.value)
  if (!written.ok) {
    doing(written)
    return
  }
  doing({ ok: true, value: [] })
  told.value = leftText(written.value.left)
  saveText(
    `${site.value.about.name}.${format}`,
    written.value.value,
    format === 'geojson' ? 'application/geo+json' : 'application/gpx+xml',
  )
}
async function openFile(file: File): Promise<void> {
  if (file.size > MOST_BYTES) {
    doing({ ok: false, refusals: [{ code: 'too_large', path: [], params: {} }] })
    return
  }
  const text = await file.text()
  const read = text.trimStart().startsWith('<') ? readGpx(text) : readGeoJson(text)
  if (!read.ok) {
    doing(read)
    return
  }
  const taken = takeIn(site.value, read.value.value)
  if (!(await keep({ ok: true, value: taken.commands }))) return
  told.value = [
    taken.commands.length === 0
      ? t('map.nothingNew')
      : t('map.took', { moved: taken.moved, added: taken.added, routed: taken.routed, newCables: taken.newCables }),
    ...(taken.left.length > 0 ? [t('map.leftOut', { names: taken.left.join(', ') })] : []),
    ...leftText(read.value.left),
  ]
  await nextTick()
  board.value?.fit()
}
const originText = computed(() => {
  const o = site.value.about.origin
  return o ? `${o.latitude_deg}, ${o.longitude_deg}` : ''
})
function setOrigin(event: Event): void {
  const text = (event.target as HTMLInputElement).value.trim()
  const found = /^([-−]?\d+(?:\.\d+)?)\s*[,; ]\s*([-−]?\d+(?:\.\d+)?)$/.exec(text)
  const [lat, lon] = found ? [Number(found[1]!.replace('−', '-')), Number(found[2]!.replace('−', '-'))] : [NaN, NaN]
  if (text === '') doing({ ok: true, value: [{ do: 'setAbout', field: 'origin', value: null }] })
  else if (Math.abs(lat) <= 90 && Math.abs(lon) <= 180)
    doing({ ok: true, value: [{ do: 'setAbout', field: 'origin', value: { latitude_deg: lat, longitude_deg: lon } }] })
  else doing(refused(refusal('not_a_position', [t('map.origin')], { text })))
}

// The picture underneath.
const under = computed(() => {
  const first = entries(site.value.underlays)[0]
  return first ? { id: first[0] as UnderlayId, record: first[1] } : null
})
const picture = shallowRef<ImageBitmap | null>(null)
const [waits, tying, spot] = [ref(false), ref(false), shallowRef<{ px: number; py: number } | null>(null)]
watch(
  () => under.value?.record.sha256,
  async (sha256) => {
    picture.value?.close()
    picture.value = null
    tying.value = false
    if (!sha256) return
    const blob = await pictureOf(id, sha256).catch(() => null)
    if (blob && under.value?.record.sha256 === sha256) picture.value = await createImageBitmap(blob).catch(() => null)
    await sendAll()
  },
  { immediate: true },
)
async function sendAll(): Promise<void> {
  waits.value = (await sendPictures(id).catch(() => 1)) > 0
}
const again = () => void sendAll()
onMounted(() => window.addEventListener('online', again))
onBeforeUnmount(() => {
  window.removeEventListener('online', again)
  picture.value?.close()
})
async function openPicture(file: File): Promise<void> {
  const taken = await takePicture(id, file)
  if (!taken) {
    doing(refused(refusal('not_a_picture', [], { limit: 5 })))
    return
  }
  const record = { name: file.name.slice(0, 120).replace(/[\p{Cc}\p{Cs}]/gu, ''), ...taken }
  const old = under.value ? [{ do: 'remove' as const, in: 'underlays' as const, id: under.value.id }] : []
  let n = 1
  while (site.value.underlays[`picture-${n}` as UnderlayId]) n++
  if (await keep({ ok: true, value: [...old, { do: 'create', in: 'underlays', id: `picture-${n}`, record }] })) {
    await nextTick()
    setTimeout(() => board.value?.fit(), 300)
  }
}
function startTie(): void {
  tying.value = true
  spot.value = null
  mode.value = 'choose'
}
function tied(): void {
  tying.value = false
  spot.value = null
}
function setMode(to: MapMode): void {
  mode.value = to
  tied()
  if (to !== 'place') waiting.value = null
}
</script>

<template>
  <div class="stack map-page">
    <div class="row title">
      <h1>{{ t('map.title') }}</h1>
      <span class="row files">
        <FileButton
          v-if="!fixed"
          accept=".geojson,.json,.gpx,application/geo+json,application/gpx+xml"
          :label="t('map.openFile')"
          @chosen="openFile"
        />
        <AppButton @click="save('geojson')">{{ t('map.geojson') }}</AppButton>
        <AppButton @click="save('gpx')">{{ t('map.gpx') }}</AppButton>
        <FileButton v-if="!fixed" accept="image/*" :label="t('map.picture')" @chosen="openPicture" />
      </span>
    </div>
    <ul v-if="sentences.length > 0" class="sheet wrong" role="alert">
      <li v-for="s in sentences" :key="s">{{ s }}</li>
    </ul>
    <div v-if="told.length > 0" class="sheet row told" role="status">
      <span>
        <span v-for="s in told" :key="s" class="line">{{ s }}</span>
      </span>
      <AppButton look="plain" :aria-label="t('app.close')" @click="told = []">×</AppButton>
    </div>
    <div class="work-area">
      <div class="map">
        <div class="row modes" role="group" :aria-label="t('map.title')">
          <AppButton
            v-for="m in MODES"
            :key="m.mode"
            class="slim"
            :class="{ primary: mode === m.mode }"
            :aria-pressed="mode === m.mode"
            :disabled="fixed && m.mode !== 'choose'"
            @click="setMode(m.mode)"
          >
            {{ m.label }}
          </AppButton>
          <AppButton class="slim" @click="board?.fit()">{{ t('map.fit') }}</AppButton>
          <AppButton v-if="mode === 'cable'" look="primary" class="slim" @click="board?.finish()">
            {{ t('map.done') }}
          </AppButton>
        </div>
        <p v-if="mode === 'place'" class="quiet hint">
          {{ t('map.boxHere') }}
          <strong v-if="waiting">{{ site.places[waiting]?.tag }}</strong>
        </p>
        <p v-else-if="mode === 'cable'" class="quiet hint">{{ t('map.cableHere') }}</p>
        <p v-else-if="mode === 'bend'" class="quiet hint">{{ t('map.bends') }}</p>
        <div class="board-frame">
          <MapBoard
            ref="board"
            :site="site"
            :mode="mode"
            :chosen="chosen"
            :picture="picture"
            :underlay="under?.record ?? null"
            @chose="choose"
            @clicked="clicked"
            @moved="moved"
            @bent="bent"
            @drew="drew"
          />
        </div>
        <p class="quiet small">
          {{ t('map.north') }}
          <span v-if="places.every((p) => p.at === null)">{{ t('map.empty') }}</span>
        </p>
      </div>
      <div class="side stack">
        <MapPlace v-if="place" :site="site" :place="place" :property="id" :fixed="fixed" @keep="doing" />
        <MapCable v-if="cable" :site="site" :cable="cable" :fixed="fixed" @keep="doing" />
        <MapUnderlay
          v-if="under"
          :id="under.id"
          :site="site"
          :fixed="fixed"
          :here="picture !== null"
          :waits="waits"
          :spot="spot"
          :tying="tying"
          @keep="doing"
          @tie="startTie"
          @tied="tied"
        />
        <section class="sheet stack lists">
          <template v-if="unplaced.length > 0">
            <h2>{{ t('map.unplaced') }}</h2>
            <p class="chips">
              <AppButton
                v-for="p in unplaced"
                :key="p.id"
                look="bare"
                class="chip figure"
                :class="{ chosen: waiting === p.id }"
                @click="pick(p.id)"
              >
                {{ p.place.tag }}
              </AppButton>
            </p>
          </template>
          <h2 v-if="unplaced.length < places.length">{{ t('boxes.title') }}</h2>
          <p class="chips">
            <AppButton
              v-for="p in places.filter((x) => x.at !== null)"
              :key="p.id"
              look="bare"
              class="chip figure"
              :class="{ chosen: place === p.id, doubtful: p.place.found === 'lost' }"
              :aria-pressed="place === p.id"
              @click="pick(p.id)"
            >
              {{ p.place.tag }}
            </AppButton>
          </p>
          <h2>{{ t('map.cables') }}</h2>
          <ul class="cables">
            <li v-for="c in cables" :key="c.id">
              <AppButton
                look="bare"
                class="cable"
                :class="{ chosen: cable === c.id }"
                :aria-pressed="cable === c.id"
                @click="chosen = { kind: 'cable', id: c.id }"
              >
                <strong class="figure">{{ c.tag }}</strong>
                {{ ' ' }}
                <span class="quiet">{{ c.name }}</span>
                {{ ' ' }}
                <span class="quiet figure">
                  {{ c.drawn_m === null ? t('map.notDrawn') : unbroken(lengthText(c.drawn_m, site.settings.units)) }}
                </span>
              </AppButton>
            </li>
          </ul>
          <div class="field">
            <label for="map-origin">{{ t('map.origin') }}</label>
            <TextField
              id="map-origin"
              class="input figure"
              :model-value="originText"
              :readonly="fixed"
              placeholder="-47.5, -120.25"
              @change="setOrigin"
            />
            <p class="how">{{ t('map.originHow') }}</p>
          </div>
        </section>
        <p class="caution">{{ t('map.care') }}</p>
      </div>
    </div>
  </div>
</template>

<style scoped>
.title {
  justify-content: space-between;
}
.title .button {
  min-height: 36px;
  padding: 4px 12px;
}
.wrong {
  color: var(--fault);
  font-weight: 600;
  border-left: 5px solid var(--fault);
}
.told {
  justify-content: space-between;
}
.line {
  display: block;
}
.work-area {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  gap: 16px;
  align-items: start;
}
.map {
  display: grid;
  gap: 8px;
}
.modes {
  gap: 6px;
}
.slim {
  min-height: 36px;
  padding: 4px 12px;
}
.board-frame {
  height: min(68vh, 720px);
  min-height: 360px;
}
.small,
.hint {
  font-size: 13px;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.chip {
  min-width: 44px;
  min-height: 36px;
  padding: 2px 8px;
  border: 1px solid var(--rule);
  border-radius: 18px;
  background: var(--paper);
  cursor: pointer;
}
.chip.chosen,
.cable.chosen {
  border-color: var(--copper);
  background: var(--copper-soft);
  font-weight: 700;
}
.lists {
  gap: 8px;
}
.cable {
  display: flex;
  gap: 8px;
  width: 100%;
  min-height: 36px;
  align-items: center;
  padding: 2px 6px;
  border: 1px solid transparent;
  border-radius: var(--corner);
  background: none;
  text-align: left;
  cursor: pointer;
}
.cable > :last-child {
  margin-left: auto;
}
@media (max-width: 979px) {
  .work-area {
    grid-template-columns: 1fr;
  }
  .board-frame {
    height: 60vh;
  }
}
@media (max-width: 759px) {
  .title {
    display: contents;
  }
  .files {
    order: 9;
  }
  .chip {
    min-height: 48px;
    min-width: 52px;
    border-radius: 24px;
  }
  .slim,
  .title .button,
  .cable {
    min-height: 48px;
  }
  .small,
  .hint {
    font-size: 15px;
  }
}
</style>
