<script setup lang="ts">
import { drawnDistances_m, whereIs } from '../../../core/map'
import { lengthText } from '../../../core/quantity'
import { refusal, refused, type Outcome } from '../../../core/refusal'
import { byTag, entries, type CableId, type Command, type PlaceId, type Site } from '../../../core/site'
import { unbroken } from '../../composables/useSpeaker'
import { useWiringWords } from '../../composables/useWiringWords'
import { valueOf } from '../../lib/fields'

/** Boxes and cables by name, those without a place on the map first; and where the map's middle lies on earth. */
const props = defineProps<{
  site: Site
  fixed: boolean
  place: PlaceId | null
  cable: CableId | null
  waiting: PlaceId | null
}>()
const emit = defineEmits<{ place: [id: PlaceId]; cable: [id: CableId]; keep: [outcome: Outcome<Command[]>] }>()
const { t } = useWiringWords(() => props.site.settings.units)

const places = computed(() =>
  entries(props.site.places)
    .sort(([, a], [, b]) => byTag(a.tag, b.tag))
    .map(([id, place]) => ({ id, tag: place.tag, lost: place.found === 'lost', placed: whereIs(place) !== null })),
)
const [placed, unplaced] = [
  computed(() => places.value.filter((p) => p.placed)),
  computed(() => places.value.filter((p) => !p.placed)),
]
const cables = computed(() =>
  entries(props.site.cables)
    .filter(([, c]) => c.kind !== 'jumper')
    .sort(([a, x], [b, y]) => byTag(x.tag ?? a, y.tag ?? b))
    .map(([id, c]) => {
      const drawn_m = drawnDistances_m(props.site, c).at(-1) ?? null
      const length = drawn_m === null ? t('map.notDrawn') : unbroken(lengthText(drawn_m, props.site.settings.units))
      return { id, tag: c.tag ?? id, name: c.name, length }
    }),
)
const originText = computed(() => {
  const o = props.site.about.origin
  return o ? `${o.latitude_deg}, ${o.longitude_deg}` : ''
})
function setOrigin(event: Event): void {
  const text = valueOf(event).trim()
  const found = /^([-−]?\d+(?:\.\d+)?)\s*[,; ]\s*([-−]?\d+(?:\.\d+)?)$/.exec(text)
  const [latitude_deg, longitude_deg] = [1, 2].map((k) => Number(found?.[k]!.replace('−', '-') ?? NaN)) as [
    number,
    number,
  ]
  const set = (value: Site['about']['origin']) =>
    emit('keep', { ok: true, value: [{ do: 'setAbout', field: 'origin', value }] })
  if (text === '') set(null)
  else if (Math.abs(latitude_deg) <= 90 && Math.abs(longitude_deg) <= 180) set({ latitude_deg, longitude_deg })
  else emit('keep', refused(refusal('not_a_position', [t('map.origin')], { text })))
}
</script>

<template>
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
          @click="emit('place', p.id)"
        >
          {{ p.tag }}
        </AppButton>
      </p>
    </template>
    <h2 v-if="placed.length > 0">{{ t('boxes.title') }}</h2>
    <p class="chips">
      <AppButton
        v-for="p in placed"
        :key="p.id"
        look="bare"
        class="chip figure"
        :class="{ chosen: place === p.id, doubtful: p.lost }"
        :aria-pressed="place === p.id"
        @click="emit('place', p.id)"
      >
        {{ p.tag }}
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
          @click="emit('cable', c.id)"
        >
          <strong class="figure">{{ c.tag }}</strong>
          {{ ' ' }}
          <span class="quiet">{{ c.name }}</span>
          {{ ' ' }}
          <span class="quiet figure">{{ c.length }}</span>
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
</template>

<style scoped>
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
@media (max-width: 759px) {
  .chip {
    min-height: 48px;
    min-width: 52px;
    border-radius: 24px;
  }
  .cable {
    min-height: 48px;
  }
}
</style>
