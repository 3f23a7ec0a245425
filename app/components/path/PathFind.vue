<script setup lang="ts">
import { SURE, type PathSuspect } from '../../../core/path-hunt'
import { isAsked, isParted, type PathTest, type PathValue } from '../../../core/record'
import type { PathAt } from '../../../core/site'
import { usePathHunt } from '../../composables/usePathHunt'
import { usePathMeter } from '../../composables/usePathMeter'
import { figureIn } from '../../lib/figures'

/** A fault of the path is searched: what to read next and where, what every reading says, and where to go. */
const props = defineProps<{ path: PathAt }>()
const hunt = usePathHunt(() => props.path)
const { t, fixed, kept, found, behind, put, named, whereOf, placeTag, deviceTag, unitOf, said, sweep } = hunt
const meter = usePathMeter(() => props.path.controller)
const MOST = 1e9

const chosen = ref<PathTest | null>(null)
const advised = computed(() => found.value?.advice[0]?.candidate.test ?? null)
const current = computed(() => chosen.value ?? advised.value)
const keyOf = (test: PathTest | null) => JSON.stringify(test)
const advice = computed(() => found.value?.advice.find((a) => keyOf(a.candidate.test) === keyOf(current.value)))
const minutes = computed(() => advice.value && Math.max(1, Math.round(advice.value.minutes)))
const expected = computed(() => {
  const row = rows.value.find((r) => keyOf(r.test) === keyOf(current.value))
  return current.value ? shown(current.value, row?.expected ?? advice.value?.expected) : ''
})
const [typed, bad] = [ref(''), ref('')]
watch(current, () => {
  typed.value = ''
  bad.value = ''
})
async function keep(value: PathValue): Promise<void> {
  const test = current.value
  if (!test) return
  chosen.value = null
  typed.value = ''
  await put({ kind: 'read', test, value })
}
function keepTyped(): void {
  const value = figureIn(typed.value, 0, MOST)
  bad.value = value === null ? t('pathFind.bad', { low: 0, high: MOST }) : ''
  if (value !== null) void keep(value)
}
async function readMeter(): Promise<void> {
  const value = current.value ? await meter.read(current.value) : undefined
  if (value !== undefined) await keep(value)
}
const mayBeNone = (test: PathTest) => unitOf(test) === 'Ω' || test.kind === 'number_read'

const percent = (p: number) => Math.round(100 * p)
function suspectText({ fault }: PathSuspect): string {
  const { where } = fault
  const device = where.kind === 'device' ? deviceTag(where.device) : ''
  const what =
    fault.kind === 'open' && where.kind === 'device'
      ? t('pathFind.openAt', { device })
      : t(`pathFind.faults.${fault.kind}`, { device, ...(fault.kind === 'renumbered' && { as: fault.as }) })
  const at =
    where.kind === 'length'
      ? t('pathFind.where.length', { a: placeTag(where.ends[0]), b: placeTag(where.ends[1]) })
      : where.kind === 'joint'
        ? t('pathFind.where.joint', { place: placeTag(where.place), toward: placeTag(where.toward) })
        : t('pathFind.where.device', { place: placeTag(where.place) })
  return `${what}, ${at}`
}
const aim = computed(() => {
  const at = found.value?.aim
  if (!at || at.p < SURE) return ''
  const [a, b] = at.places.map(placeTag)
  const p = percent(at.p)
  return b === undefined ? t('pathFind.goTo', { place: a!, p }) : t('pathFind.goBetween', { a: a!, b, p })
})
/** A sum of the path as its sweep shows it: by the record, and as it was read. */
const rows = computed(() =>
  sweep.value.map((test, i) => {
    const read = kept.value.findLast((r) => keyOf(r.test) === keyOf(test))
    return { test, expected: found.value?.expected[i], read }
  }),
)
const shown = (test: PathTest, value: PathValue | undefined) =>
  value === undefined ? '' : said(test, typeof value === 'number' ? Math.round(value * 1000) / 1000 : value)
</script>

<template>
  <div class="find">
    <div class="stack">
      <p class="quiet">{{ t('pathFind.how') }}</p>
      <p v-if="path.system?.idle === 'dead'" class="quiet">{{ t('pathFind.live') }}</p>
      <p v-if="aim" class="verdict fault" role="status">
        <StateMark state="fault" silent />
        {{ ' ' }}
        <strong>{{ aim }}</strong>
      </p>
      <p v-else-if="found && found.sound >= SURE" class="verdict fits" role="status">
        <StateMark state="fits" silent />
        {{ ' ' }}
        {{ t('pathFind.fits') }}
      </p>
      <section v-if="current && !fixed" class="sheet stack" aria-live="polite">
        <p class="quiet">
          {{ t('pathFind.next') }}, {{ whereOf(current) }}
          <template v-if="minutes">· {{ t('pathFind.takes', { minutes }) }}</template>
          <template v-if="chosen">· {{ t('pathFind.chosen') }}</template>
        </p>
        <h2 class="next">{{ named(current) }}</h2>
        <p v-if="expected" class="quiet">{{ t('pathFind.soundReads', { value: expected }) }}</p>
        <p v-if="isParted(current)" class="caution">{{ t('pathFind.caution') }} {{ t('pathFind.defer') }}</p>
        <div v-if="meter.gives(current)" class="row">
          <AppButton look="primary" @click="readMeter">{{ t('pathFind.readMeter') }}</AppButton>
        </div>
        <div v-if="isAsked(current)" class="row">
          <AppButton look="primary" @click="keep(true)">{{ t('pathFind.yes') }}</AppButton>
          <AppButton look="primary" @click="keep(false)">{{ t('pathFind.no') }}</AppButton>
        </div>
        <form v-else class="row" novalidate @submit.prevent="keepTyped">
          <div class="field">
            <label for="path-read">{{ t('pathFind.value', { unit: unitOf(current) || t('twoWire.number') }) }}</label>
            <TextField id="path-read" v-model="typed" inputmode="decimal" />
          </div>
          <AppButton type="submit" look="primary">{{ t('pathFind.keep') }}</AppButton>
          <AppButton v-if="mayBeNone(current)" @click="keep(null)">
            {{ t(current.kind === 'number_read' ? 'pathFind.noneNumber' : 'pathFind.none') }}
          </AppButton>
        </form>
        <p v-if="bad" class="fault" role="alert">{{ bad }}</p>
        <p v-if="chosen" class="row">
          <AppButton look="plain" @click="chosen = null">{{ t('pathFind.back') }}</AppButton>
        </p>
      </section>
      <p v-if="behind" class="quiet" role="status">{{ t('pathFind.working') }}</p>
      <section v-if="found && found.advice.length > 1 && !fixed" class="stack">
        <h3>{{ t('pathFind.other') }}</h3>
        <ul class="plain">
          <li v-for="a in found.advice.slice(1)" :key="keyOf(a.candidate.test)">
            <AppButton look="plain" @click="chosen = a.candidate.test">
              {{ named(a.candidate.test) }}, {{ whereOf(a.candidate.test) }}
            </AppButton>
          </li>
        </ul>
      </section>
      <PathMeter v-if="!fixed" :meter="meter" />
      <details class="folds">
        <summary>
          <h2>{{ t('pathFind.sweep') }}</h2>
        </summary>
        <p class="quiet">{{ t('pathFind.sweepHow') }}</p>
        <ul class="plain">
          <li v-for="r in rows" :key="keyOf(r.test)" class="swept">
            <AppButton look="plain" :disabled="fixed" @click="chosen = r.test">{{ named(r.test) }}</AppButton>
            <span class="quiet figure">{{ shown(r.test, r.expected) }}</span>
            <span class="figure">{{ r.read ? shown(r.test, r.read.value) : '–' }}</span>
          </li>
        </ul>
      </details>
    </div>
    <div class="stack">
      <section v-if="found" class="sheet stack">
        <h2>{{ t('pathFind.suspects') }}</h2>
        <ol class="plain">
          <li v-for="s in found.suspects" :key="s.key" class="suspect">
            <span class="figure">{{ t('pathFind.percent', { p: percent(s.p) }) }}</span>
            <span>{{ suspectText(s) }}</span>
          </li>
          <li class="suspect quiet">
            <span class="figure">{{ t('pathFind.percent', { p: percent(found.sound) }) }}</span>
            <span>{{ t('pathFind.sound') }}</span>
          </li>
        </ol>
      </section>
      <section class="sheet stack">
        <h2>{{ t('pathFind.readings') }}</h2>
        <p v-if="kept.length === 0" class="quiet">{{ t('pathFind.noReadings') }}</p>
        <ul v-else class="plain">
          <li v-for="r in kept" :key="r.id" class="row kept">
            <span>
              {{ named(r.test) }}, {{ whereOf(r.test) }}:
              <strong class="figure">{{ said(r.test, r.value) }}</strong>
            </span>
            <AppButton v-if="!fixed" look="plain" @click="put({ kind: 'back', reading: r.id })">
              {{ t('pathFind.takeBack') }}
            </AppButton>
          </li>
        </ul>
        <div v-if="kept.length > 0 && !fixed" class="stack">
          <p class="quiet">{{ t('pathFind.anewHow') }}</p>
          <div class="row">
            <AppButton @click="put({ kind: 'begun' })">{{ t('pathFind.anew') }}</AppButton>
          </div>
        </div>
      </section>
    </div>
  </div>
</template>

<style scoped>
.find {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 16px;
  align-items: start;
}
@media (max-width: 800px) {
  .find {
    grid-template-columns: minmax(0, 1fr);
  }
}
.next {
  font-size: 22px;
  line-height: 1.25;
}
.plain {
  list-style: none;
  margin: 0;
  padding: 0;
}
.plain :deep(button) {
  text-align: left;
}
.suspect {
  display: grid;
  grid-template-columns: 5ch 1fr;
  gap: 8px;
  padding: 4px 0;
}
.swept {
  display: grid;
  grid-template-columns: 1fr 9ch 9ch;
  gap: 8px;
  align-items: center;
  border-bottom: 1px solid var(--rule);
}
.kept {
  justify-content: space-between;
  flex-wrap: nowrap;
}
</style>
