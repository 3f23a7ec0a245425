<script setup lang="ts">
import { checkSite, setSetting, type Command } from '../../../../core/site'
import { say } from '../../../../words'
import { dayText, timeText, useSpeaker } from '../../../composables/useSpeaker'
import { fileAddress, type Step } from '../../../lib/api'
import { figureIn, temperatureMeant, temperatureShown } from '../../../lib/figures'
import { standingReadings, jobsInOrder } from '../../../../core/record'
import { saveText } from '../../../lib/save'
import { useProperty } from '../../../stores/property'

const route = useRoute()
const property = useProperty()
/** Whether the file brings every change with it. */
const past = ref(false)
const site = computed(() => property.site!)
const settings = computed(() => site.value.settings)
const { t, speaker } = useSpeaker(() => settings.value.units)
const findings = computed(() => checkSite(site.value))
const state = { wrong: 'fault', doubt: 'doubtful', gap: 'none' } as const

/** One editable figure: how it is shown, its bounds as shown, and the command that stores it. */
interface Field {
  key: string
  label: string
  why: string
  shown: string
  low: number
  high: number
  store: (shown: number) => Command
}
const fields = computed((): Field[] => {
  const s = settings.value
  const F = s.units.temperature === 'F'
  return [
    {
      key: 'ground_C',
      label: `${t('record.ground')}, ${F ? '°F' : '°C'}`,
      why: t('record.why.ground_C'),
      shown: temperatureShown(s.ground_C, s.units),
      low: -40,
      high: F ? 194 : 90,
      store: (v) => setSetting('ground_C', temperatureMeant(v, s.units)),
    },
    {
      key: 'soundSplice_ohm',
      label: t('record.soundSplice'),
      why: t('record.why.soundSplice_ohm'),
      shown: String(s.soundSplice_ohm),
      low: 0,
      high: 1,
      store: (v) => setSetting('soundSplice_ohm', v),
    },
    {
      key: 'coilTolerance_ratio',
      label: t('record.coilTolerance'),
      why: t('record.why.coilTolerance_ratio'),
      shown: String(Math.round(s.coilTolerance_ratio * 1000) / 10),
      low: 0,
      high: 50,
      store: (v) => setSetting('coilTolerance_ratio', v / 100),
    },
    {
      key: 'lengthTolerance_ratio',
      label: t('record.lengthTolerance'),
      why: t('record.why.lengthTolerance_ratio'),
      shown: String(Math.round(s.lengthTolerance_ratio * 1000) / 10),
      low: 0,
      high: 50,
      store: (v) => setSetting('lengthTolerance_ratio', v / 100),
    },
    {
      key: 'ruleLow',
      label: t('record.ruleLow'),
      why: t('record.why.ruleOfThumb_ohm'),
      shown: String(s.ruleOfThumb_ohm.low),
      low: 0,
      high: s.ruleOfThumb_ohm.high - 1,
      store: (v) => setSetting('ruleOfThumb_ohm', { ...s.ruleOfThumb_ohm, low: v }),
    },
    {
      key: 'ruleHigh',
      label: t('record.ruleHigh'),
      why: t('record.why.ruleOfThumb_ohm'),
      shown: String(s.ruleOfThumb_ohm.high),
      low: s.ruleOfThumb_ohm.low + 1,
      high: 1000,
      store: (v) => setSetting('ruleOfThumb_ohm', { ...s.ruleOfThumb_ohm, high: v }),
    },
  ]
})
const bad = ref<Record<string, string>>({})
async function store(field: Field, text: string): Promise<void> {
  const value = figureIn(text, field.low, field.high)
  if (value === null) {
    bad.value = {
      ...bad.value,
      [field.key]: t('test.bad.number', { field: field.label, low: field.low, high: field.high }),
    }
    return
  }
  const { [field.key]: _mended, ...rest } = bad.value
  bad.value = rest
  if (text !== field.shown) await property.change([field.store(value)])
}
async function storeAbout(field: 'name' | 'contractor', text: string, input: HTMLInputElement): Promise<void> {
  const plain = text.trim()
  if (field === 'name' && plain === '') {
    input.value = site.value.about.name
    return
  }
  if (plain !== site.value.about[field]) await property.change([{ do: 'setAbout', field, value: plain }])
}
const unitsChoice = computed(() => (settings.value.units.length === 'ft' ? 'imperial' : 'metric'))
const storeUnits = (choice: string) =>
  property.change([
    setSetting('units', choice === 'imperial' ? { length: 'ft', temperature: 'F' } : { length: 'm', temperature: 'C' }),
  ])

/** What a change touched, in the words of its fields. */
const touched = (step: Step) => [...new Set(step.writes.map((w) => w.path.join(' › ')))].slice(0, 3).join(', ')
const revisionOf = (id: string | null) => property.held!.steps.find((s) => s.id === id)?.revision ?? '?'
const takenBack = computed(() => new Set(property.held!.steps.map((s) => s.undoes)))
async function saveCsv(): Promise<void> {
  const { writeReadingsCsv } = await import('../../../../core/formats')
  const facts = property.facts!
  const readings = jobsInOrder(facts)
    .reverse()
    .flatMap((id) => standingReadings(facts, id).map((l) => l.reading))
  saveText(`${site.value.about.name} readings.csv`, writeReadingsCsv(site.value, readings), 'text/csv')
}
const valueOf = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="record">
    <h1>{{ t('record.title') }}</h1>
    <div class="columns">
      <div class="stack">
        <section class="sheet stack">
          <h2>{{ t('record.settings') }}</h2>
          <div class="field">
            <label for="about-name">{{ t('record.name') }}</label>
            <TextField
              id="about-name"
              :model-value="site.about.name"
              maxlength="120"
              @change="storeAbout('name', valueOf($event), $event.target as HTMLInputElement)"
            />
          </div>
          <div class="field">
            <label for="about-contractor">{{ t('record.contractor') }}</label>
            <TextField
              id="about-contractor"
              :model-value="site.about.contractor"
              maxlength="120"
              @change="storeAbout('contractor', valueOf($event), $event.target as HTMLInputElement)"
            />
          </div>
          <div class="field">
            <label for="units">{{ t('record.units') }}</label>
            <select id="units" class="input" :value="unitsChoice" @change="storeUnits(valueOf($event))">
              <option value="metric">{{ t('record.metric') }}</option>
              <option value="imperial">{{ t('record.imperial') }}</option>
            </select>
          </div>
          <div class="two">
            <div v-for="f in fields" :key="f.key" class="field">
              <label :for="`f-${f.key}`">{{ f.label }}</label>
              <TextField
                :id="`f-${f.key}`"
                :model-value="f.shown"
                inputmode="decimal"
                :aria-invalid="!!bad[f.key]"
                :aria-describedby="`f-${f.key}-how`"
                @change="store(f, valueOf($event))"
              />
              <p :id="`f-${f.key}-how`" class="how">{{ f.why }}</p>
              <p v-if="bad[f.key]" class="bad" role="alert">{{ bad[f.key] }}</p>
            </div>
          </div>
        </section>
        <section class="sheet stack">
          <h2>{{ t('record.file') }}</h2>
          <p class="quiet">{{ t('record.saveHow') }}</p>
          <label class="row">
            <input v-model="past" type="checkbox" />
            {{ t('record.withPast') }}
          </label>
          <p class="row">
            <a
              class="button"
              :href="
                fileAddress(String(route.params.id), {
                  pictures: Object.keys(site.underlays).length > 0,
                  journal: past,
                })
              "
              download
            >
              {{ t('record.save') }}
            </a>
            <button type="button" class="button" @click="saveCsv">{{ t('csv.outAll') }}</button>
          </p>
        </section>
        <KeepOrGo :id="String(route.params.id)" :is-archived="property.held!.archived" />
      </div>
      <div class="stack">
        <section class="sheet stack">
          <h2>{{ t('record.findings') }}</h2>
          <p v-if="findings.length === 0" class="fits">
            <StateMark state="fits" silent />
            {{ t('record.noFindings') }}
          </p>
          <ul class="findings">
            <li v-for="(f, i) in findings" :key="i">
              <StateMark :state="state[f.weight]" silent />
              <span>
                <strong>{{ t(`record.weight.${f.weight}`) }}</strong>
                {{ say({ code: `finding.${f.code}`, params: f.params }, speaker) }}
              </span>
            </li>
          </ul>
        </section>
        <section class="sheet stack">
          <div class="row between">
            <h2>{{ t('record.steps') }}</h2>
            <button
              type="button"
              class="button"
              :disabled="!property.undoable || property.pending > 0 || property.viewed !== null"
              @click="property.undo()"
            >
              {{ t('record.undoStep') }}
            </button>
          </div>
          <p v-if="property.held!.steps.length === 0" class="quiet">{{ t('record.noSteps') }}</p>
          <ol class="findings">
            <li v-for="s in property.held!.steps" :key="s.id">
              <span class="figure quiet">{{ s.revision }}</span>
              <span :class="{ taken: takenBack.has(s.id) }">
                {{ s.undoes ? t('record.undoes', { revision: revisionOf(s.undoes) }) : touched(s) }}
                <span class="quiet">
                  {{ dayText(s.at) }}, {{ timeText(s.at) }}
                  <template v-if="s.author">· {{ s.author }}</template>
                </span>
                <em v-if="takenBack.has(s.id)" class="quiet">· {{ t('record.undoneStep') }}</em>
              </span>
              {{ ' ' }}
              <button type="button" class="button plain see" @click="property.view(s.revision - 1)">
                {{ t('record.before') }}
              </button>
            </li>
          </ol>
          <p v-if="(property.held!.steps.at(-1)?.revision ?? 1) > 1">
            <button type="button" class="button" @click="property.loadOlder()">{{ t('record.older') }}</button>
          </p>
        </section>
        <p class="caution">{{ t('record.code') }}</p>
      </div>
    </div>
  </div>
</template>

<style scoped>
.record {
  display: grid;
  gap: 16px;
}
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(360px, 100%), 1fr));
  gap: 16px;
  align-items: start;
  max-width: 1080px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
.findings li {
  display: grid;
  grid-template-columns: 28px 1fr;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
.between {
  justify-content: space-between;
}
.taken {
  text-decoration: line-through;
}
@media (max-width: 759px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
