<script setup lang="ts">
import { inUnit, toMetres } from '../../../core/quantity'
import { lookUp } from '../../../core/site'
import { acrossAt, furtherOn, soundsOtherwise, type Section } from '../../../core/trace'
import type { TraceWorkHere } from '../../composables/useTrace'
import type { Wand } from '../../composables/useWand'
import { figureIn } from '../../lib/figures'

/**
 * A section across the line: readings from left to right, then where it lies, how deep, and where hand digging starts.
 */
const props = defineProps<{ work: TraceWorkHere; wand: Wand }>()
const { t, trace, units, metres, write, takeBack, property, traces } = props.work

const sections = computed(() => trace.value?.sections ?? [])
/** Between sections one walks so far. */
const ONWARD_m = 4
/** Readings of a section at first; more to either side where that is wanted. */
const USUAL = 9
const unit = computed(() => units.value.length)
const [place, step] = [ref(''), ref(String(unit.value === 'ft' ? 1 : 0.4))]
const along_m = ref(0)
const open = ref<string | null>(null)
const centre_m = ref(0)
const bad = ref('')

function begin(at_m: number): void {
  along_m.value = Math.round(at_m * 100) / 100
  place.value = String(Math.round(inUnit(along_m.value, unit.value) * 100) / 100)
  const taken = new Set(sections.value.map((s) => s.name))
  let n = 1
  while (taken.has(`S${n}`)) n++
  open.value = `S${n}`
}
onMounted(() => {
  const last = sections.value.at(-1)
  begin(last ? last.along_m + ONWARD_m : ONWARD_m)
})
const figure = (text: string, low: number, high: number, label: string): number | null => {
  const value = figureIn(text, low, high)
  bad.value = value === null ? t('trace.figureBad', { field: label, low, high }) : ''
  return value
}
watch(place, (now) => {
  const value = figure(now, -1000, 60_000, t('trace.sectionAt', { unit: unit.value }))
  if (value === null) return
  along_m.value = toMetres(value, unit.value)
  // About where the line lay before, not where it is drawn.
  if (done.value === 0) centre_m.value = Math.round(acrossAt(sections.value, along_m.value) * 20) / 20
})
const step_m = computed(() => toMetres(figureIn(step.value, 0.01, 20) ?? 0.4, unit.value))
watch(step, (now) => figure(now, 0.01, 20, t('trace.spacing', { unit: unit.value })))

const own = computed(() => sections.value.find((s) => s.name === open.value) ?? null)
const done = computed(() => own.value?.readings.length ?? 0)
/** Where to read next: from the left on, and past the right end where more are wanted. */
const across_m = computed(() => {
  const from_m = centre_m.value - ((USUAL - 1) / 2) * step_m.value
  return Math.round((from_m + done.value * step_m.value) * 1000) / 1000
})
const where = (m: number) =>
  Math.abs(m) < 0.005 ? t('trace.middle') : t(m < 0 ? 'trace.left' : 'trace.right', { distance: metres(Math.abs(m)) })
const keep = (reading: number) =>
  write({
    kind: 'wand',
    section: open.value,
    along_m: along_m.value,
    across_m: across_m.value,
    ...props.wand.held,
    reading,
  })

/** The section that is told of: the one that is read now where it has readings enough, else the one before. */
const told = computed((): Section | null =>
  own.value?.crossing ? own.value : (sections.value.filter((s) => s.crossing).at(-1) ?? null),
)
/** Loudest to one side by more than a third of the other at the same distance: something bends the field. */
const isUneven = computed(() => {
  const section = told.value
  if (!section?.crossing) return false
  const { mid } = section.crossing.across_m
  const sum = (side: number) =>
    section.readings
      .filter((r) => Math.sign(r.across_m - mid) === side && Math.abs(r.across_m - mid) > 0.1)
      .map((r) => ({ off: Math.abs(r.across_m - mid), level: r.reading / r.gain }))
  const [left, right] = [sum(-1), sum(1)]
  const pairs = left.flatMap((l) => {
    const mate = right.find((r) => Math.abs(r.off - l.off) < step_m.value / 2)
    return mate ? [Math.log(mate.level / l.level)] : []
  })
  return pairs.length >= 2 && Math.abs(pairs.reduce((a, b) => a + b, 0) / pairs.length) > Math.log(1.6)
})
const isOtherMode = computed(() => done.value >= USUAL && soundsOtherwise(own.value!.readings))
const further = computed(() => furtherOn(own.value?.readings ?? []))
/** Other cables that run between the same two places. */
const nearby = computed(() => {
  const on = traces.value?.cable
  const cable = on && lookUp(property.site!.cables, on)
  if (!cable) return ''
  const pairs = new Set(cable.stops.slice(1).map((s, i) => `${cable.stops[i]!.place} ${s.place}`))
  return Object.entries(property.site!.cables)
    .filter(([id, c]) => id !== on && c.stops.slice(1).some((s, i) => pairs.has(`${c.stops[i]!.place} ${s.place}`)))
    .map(([id, c]) => c.tag ?? id)
    .join(', ')
})
</script>

<template>
  <div class="stack">
    <div class="two">
      <div class="field">
        <label for="section-at">{{ t('trace.sectionAt', { unit }) }}</label>
        <TextField id="section-at" v-model="place" inputmode="decimal" :readonly="done > 0" />
      </div>
      <div class="field">
        <label for="section-step">{{ t('trace.spacing', { unit }) }}</label>
        <TextField id="section-step" v-model="step" inputmode="decimal" :readonly="done > 0" />
      </div>
    </div>
    <p v-if="bad" class="fault" role="alert">{{ bad }}</p>
    <ol class="dots" :aria-label="t('trace.few')">
      <li v-for="n in Math.max(USUAL, done)" :key="n" :class="{ read: n <= done, here: n === done + 1 }" />
    </ol>
    <ReadingField :work="work" :wand="wand" :where="where(across_m)" :along="along_m" :across="across_m" @read="keep" />
    <div class="row">
      <AppButton v-if="done >= 3" look="primary" @click="begin(along_m + ONWARD_m)">
        {{ t('trace.newSection', { distance: metres(ONWARD_m, 0) }) }}
      </AppButton>
      <AppButton v-if="done > 0" look="plain" @click="takeBack(['wand'])">{{ t('trace.takeBack') }}</AppButton>
    </div>
    <p v-if="done >= USUAL && !own?.crossing" class="doubtful" role="status">
      {{ further ? t(`trace.further.${further}`) : t('trace.flat') }}
    </p>
    <p v-if="isOtherMode" class="doubtful" role="alert">{{ t('trace.otherMode') }}</p>
    <section v-if="told?.crossing" class="sheet stack" aria-live="polite">
      <h2>{{ t('trace.section', { distance: metres(told.along_m, 1) }) }}</h2>
      <p class="dig">
        {{
          t('trace.dig', {
            low: metres(told.crossing.cover_m.low),
            mid: metres(told.crossing.cover_m.mid),
            high: metres(told.crossing.cover_m.high),
          })
        }}
      </p>
      <p>
        {{
          t('trace.lies', {
            where: where(told.crossing.across_m.mid),
            low: where(told.crossing.across_m.low),
            high: where(told.crossing.across_m.high),
          })
        }}
      </p>
      <p v-if="isUneven" class="doubtful">{{ t('trace.uneven') }}</p>
      <p v-if="nearby" class="doubtful">{{ t('trace.nearby', { cables: nearby }) }}</p>
      <p class="quiet">{{ t('trace.digHow') }}</p>
    </section>
    <p v-else class="quiet">{{ t('trace.few') }}</p>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: end;
}
.dots {
  display: flex;
  gap: 6px;
}
.dots li {
  flex: 1;
  height: 10px;
  border: 1px solid var(--quiet);
  border-radius: 5px;
}
.dots .read {
  background: var(--quiet);
}
.dots .here {
  border: 2px solid var(--copper);
}
.dig {
  font-size: 18px;
  font-weight: 700;
}
</style>
