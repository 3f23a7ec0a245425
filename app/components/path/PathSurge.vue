<script setup lang="ts">
import { whereIs } from '../../../core/map'
import {
  arrestorCommands,
  arrestorsOf,
  layoutOf,
  pathLines,
  rodsOf,
  rodSpot,
  surgeKit,
  surgeReach,
  USUAL_ROD_m,
  type SurgeBreach,
} from '../../../core/path'
import { lengthText } from '../../../core/quantity'
import { byTag, getOrThrow, type PathAt, type PlaceId } from '../../../core/site'
import { usePathPage } from '../../composables/usePath'
import type { MapOverlay } from '../../lib/map-overlay'

/**
 * Where surges go into the ground: the fewest arrestors that keep the rules, their kit, and where they are on the map.
 */
const props = defineProps<{ path: PathAt }>()
const { site, t, doing, fixed } = usePathPage()
const units = computed(() => site.value.settings.units)
const metres = (length_m: number) => lengthText(length_m, units.value)
const known = computed(() => (props.path.system ? { ...props.path, system: props.path.system } : null))
const found = computed(() => (known.value ? arrestorsOf(site.value, known.value) : null))
const tags = (places: readonly PlaceId[]) =>
  places
    .map((p) => getOrThrow(site.value.places, p).tag)
    .sort(byTag)
    .join(', ')
const spotTag = (spot: number) => getOrThrow(site.value.places, layoutOf(site.value, props.path).spots[spot]!.place).tag
const whereOf = (b: SurgeBreach) =>
  t(`twoWire.impossibleKinds.${b.kind}`, {
    near: metres(found.value!.rules.near_m),
    ...(b.kind === 'apart' && { a: spotTag(b.a), b: spotTag(b.b), apart: metres(b.apart_m) }),
  })
const put = () =>
  known.value && found.value && doing({ ok: true, value: arrestorCommands(site.value, known.value, found.value.more) })

const kit = computed(() =>
  known.value && found.value && found.value.more.length > 0
    ? surgeKit(site.value, known.value, found.value.more)
    : null,
)
const kitBy = computed(() =>
  kit.value?.connector ? t('twoWire.kitBy', { connector: t(`connector.${kit.value.connector}`) }) : '',
)

const at = (place: PlaceId) => whereIs(getOrThrow(site.value.places, place))
const mapped = (places: readonly PlaceId[], kind: 'site' | 'wanted') =>
  places.flatMap((place) => {
    const spot = at(place)
    return spot ? [{ at: spot, kind, label: '' }] : []
  })
const overlay = computed((): MapOverlay | null => {
  if (!found.value || !known.value) return null
  const { now, more, rules } = found.value
  const standing = rodsOf(site.value, known.value).flatMap((r) => (r.at ? [{ at: r.at, radius_m: r.long_m }] : []))
  const wanted = more.flatMap((place) => {
    const spot = rodSpot(site.value, props.path, place)
    return spot ? [{ at: spot.at, radius_m: USUAL_ROD_m }] : []
  })
  const clear = [...standing, ...wanted]
  return {
    spots: [
      ...mapped(now, 'site'),
      ...mapped(more, 'wanted'),
      ...clear.map((c) => ({ at: c.at, kind: 'rod' as const, label: '' })),
    ],
    reach: surgeReach(site.value, known.value, now, rules.spacing_m / 2),
    clear,
  }
})
const isDrawn = computed(() => pathLines(site.value, props.path).length > 0)
</script>

<template>
  <div class="stack">
    <section v-if="found" class="sheet stack">
      <h2>{{ t('twoWire.surgeTitle') }}</h2>
      <p class="quiet">
        {{
          t('twoWire.rules', {
            near: metres(found.rules.near_m),
            branch: metres(found.rules.branch_m),
            spacing: metres(found.rules.spacing_m),
          })
        }}
      </p>
      <p>
        {{ found.now.length > 0 ? t('twoWire.now', { boxes: tags(found.now) }) : t('twoWire.nowNone') }}
      </p>
      <p v-if="found.more.length > 0">
        <StateMark state="fault" silent />
        {{ t('twoWire.more', { boxes: tags(found.more) }) }}
      </p>
      <p v-else-if="found.breaches.length === 0">
        <StateMark state="fits" silent />
        {{ t('twoWire.kept') }}
      </p>
      <p v-for="(b, i) in found.impossible" :key="i">
        <StateMark state="doubtful" silent />
        {{ t('twoWire.impossible', { where: whereOf(b) }) }}
      </p>
      <p class="quiet">
        {{ t('twoWire.fewest', { count: found.fewest.length, boxes: tags(found.fewest) }) }}
      </p>
      <p class="caution">{{ t('twoWire.drive') }}</p>
      <p v-if="kit">
        {{
          t('twoWire.kit', {
            arrestors: kit.arrestors,
            rods: kit.rods,
            rod: metres(kit.rod_m),
            bond: metres(kit.bond_m),
            joints: kit.joints,
            connector: kitBy,
          })
        }}
      </p>
      <div v-if="found.more.length > 0 && !fixed" class="row">
        <AppButton look="primary" @click="put">{{ t('twoWire.putArrestors') }}</AppButton>
      </div>
    </section>
    <section v-if="isDrawn && overlay" class="sheet stack">
      <h2>{{ t('twoWire.onMap') }}</h2>
      <p class="quiet">{{ t('twoWire.mapHow') }}</p>
      <div class="map">
        <LazyMapBoard :site="site" mode="choose" :chosen="null" :picture="null" :underlay="null" :over="overlay" />
      </div>
    </section>
    <PathEarths :path="path" />
  </div>
</template>

<style scoped>
.map {
  height: 420px;
}
</style>
