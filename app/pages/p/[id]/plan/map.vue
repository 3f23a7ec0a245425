<script setup lang="ts">
import { bendCommands, cableAlong, newPlaceCommands, placeCommands, whereIs } from '../../../../../core/map'
import { lookUp, type CableId, type PlaceId, type Point, type StopId } from '../../../../../core/site'
import { useMapFiles } from '../../../../composables/useMapFiles'
import { useUnderlay } from '../../../../composables/useUnderlay'
import { useWiringPage } from '../../../../composables/useWiringPage'
import type { MapMode, MapThing } from '../../../../lib/map-view'
import { today } from '../../../../lib/today'

/** The property on a map: boxes, cables, sleeves and hazards, a picture underneath; open formats in and out. */
const wiring = useWiringPage()
const { site, t, keep, sentences, doing, fixed } = wiring
const id = String(useRoute().params.id)
const board = ref<{
  fit(): void
  finish(): void
  centre(at: Point): void
  pictureSpot(at: Point): { px: number; py: number } | null
} | null>(null)
const files = useMapFiles(wiring)
const { told } = files
const { under, picture, waits, open: openPicture } = useUnderlay(id, wiring)

const mode = ref<MapMode>('choose')
const chosen = shallowRef<MapThing | null>(null)
const waiting = ref<PlaceId | null>(null)
const WORDS = { choose: 'select', move: 'move', place: 'addBox', cable: 'newCable', bend: 'route' } as const
/** What the pointer does; an earlier state of the record is only looked at. */
const modes = computed(() =>
  (Object.keys(WORDS) as MapMode[])
    .filter((value) => !fixed.value || value === 'choose')
    .map((value) => ({ value, label: t(`map.${WORDS[value]}`) })),
)
const place = computed(() =>
  chosen.value?.kind === 'place' && site.value.places[chosen.value.id] ? chosen.value.id : null,
)
const cable = computed(() =>
  chosen.value?.kind === 'cable' && site.value.cables[chosen.value.id] ? chosen.value.id : null,
)
function choose(thing: MapThing | null): void {
  if (!tying.value) chosen.value = thing
}
function pick(pid: PlaceId): void {
  chosen.value = { kind: 'place', id: pid }
  const known = lookUp(site.value.places, pid)
  const at = known && whereIs(known)
  waiting.value = at ? null : pid
  if (at) board.value?.centre(at)
  else mode.value = 'place'
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
async function openFile(file: File): Promise<void> {
  if (!(await files.open(file))) return
  await nextTick()
  board.value?.fit()
}
async function layUnder(file: File): Promise<void> {
  if (!(await openPicture(file))) return
  await nextTick()
  setTimeout(() => board.value?.fit(), 300)
}

// Tying the picture to the ground, spot by spot; another picture begins anew.
const [tying, spot] = [ref(false), shallowRef<{ px: number; py: number } | null>(null)]
function tie(on: boolean): void {
  tying.value = on
  spot.value = null
  if (on) mode.value = 'choose'
}
watch(
  () => under.value?.record.sha256,
  () => tie(false),
)
function setMode(to: MapMode): void {
  tie(false)
  mode.value = to
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
        <AppButton @click="files.save('geojson')">{{ t('map.geojson') }}</AppButton>
        <AppButton @click="files.save('gpx')">{{ t('map.gpx') }}</AppButton>
        <FileButton v-if="!fixed" accept="image/*" :label="t('map.picture')" @chosen="layUnder" />
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
        <div class="row modes">
          <PickBar :model-value="mode" :options="modes" :label="t('map.title')" @update:model-value="setMode" />
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
          <span v-if="Object.values(site.places).every((p) => whereIs(p) === null)">{{ t('map.empty') }}</span>
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
          @tie="tie(true)"
          @tied="tie(false)"
        />
        <MapLists
          :site="site"
          :fixed="fixed"
          :place="place"
          :cable="cable"
          :waiting="waiting"
          @place="pick"
          @cable="chosen = { kind: 'cable', id: $event }"
          @keep="doing"
        />
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
  .slim,
  .title .button {
    min-height: 48px;
  }
  .small,
  .hint {
    font-size: 15px;
  }
}
</style>
