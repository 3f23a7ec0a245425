<script setup lang="ts">
import {
  checkSite,
  clearCommands,
  pathsOf,
  setSetting,
  usualSettings,
  type Command,
  type Settings,
} from '../../../../../core/site'
import { say, whereText } from '../../../../../words'
import { dayText, timeText, useSpeaker } from '../../../../composables/useSpeaker'
import { fileAddress, type Step } from '../../../../lib/api'
import { temperatureMeant, temperatureShown } from '../../../../lib/figures'
import { standingReadings, jobsInOrder } from '../../../../../core/record'
import { saveText } from '../../../../lib/save'
import { useProperty } from '../../../../stores/property'
import { valueOf } from '../../../../lib/fields'

const route = useRoute()
const property = useProperty()
/** Whether the file brings every change with it. */
const past = ref(false)
const site = computed(() => property.site!)
const settings = computed(() => site.value.settings)
const { t, speaker } = useSpeaker(() => settings.value.units)
const findings = computed(() => checkSite(site.value).map((f) => ({ ...f, clear: clearCommands(site.value, f) })))
const state = { wrong: 'fault', doubt: 'doubtful', gap: 'none' } as const

/** One editable figure: how it is shown, its bounds as shown, and the command that stores it. */
interface Field {
  key: string
  why: string
  unit?: string
  shown: (s: Settings) => string
  low: number
  high: number
  store: (shown: number) => Command
}
const percent = (ratio: number) => String(Math.round(ratio * 1000) / 10)
const fields = computed((): Field[] => {
  const s = settings.value
  const F = s.units.temperature === 'F'
  return [
    {
      key: 'ground',
      why: 'ground_C',
      unit: F ? '°F' : '°C',
      shown: (of) => temperatureShown(of.ground_C, s.units),
      low: -40,
      high: F ? 194 : 90,
      store: (v) => setSetting('ground_C', temperatureMeant(v, s.units)),
    },
    {
      key: 'soundSplice',
      why: 'soundSplice_ohm',
      shown: (of) => String(of.soundSplice_ohm),
      low: 0,
      high: 1,
      store: (v) => setSetting('soundSplice_ohm', v),
    },
    {
      key: 'coilTolerance',
      why: 'coilTolerance_ratio',
      shown: (of) => percent(of.coilTolerance_ratio),
      low: 0,
      high: 50,
      store: (v) => setSetting('coilTolerance_ratio', v / 100),
    },
    {
      key: 'lengthTolerance',
      why: 'lengthTolerance_ratio',
      shown: (of) => percent(of.lengthTolerance_ratio),
      low: 0,
      high: 50,
      store: (v) => setSetting('lengthTolerance_ratio', v / 100),
    },
    {
      key: 'ruleLow',
      why: 'ruleOfThumb_ohm',
      shown: (of) => String(of.ruleOfThumb_ohm.low),
      low: 0,
      high: s.ruleOfThumb_ohm.high - 1,
      store: (v) => setSetting('ruleOfThumb_ohm', { ...s.ruleOfThumb_ohm, low: v }),
    },
    {
      key: 'ruleHigh',
      why: 'ruleOfThumb_ohm',
      shown: (of) => String(of.ruleOfThumb_ohm.high),
      low: s.ruleOfThumb_ohm.low + 1,
      high: 1000,
      store: (v) => setSetting('ruleOfThumb_ohm', { ...s.ruleOfThumb_ohm, high: v }),
    },
    {
      key: 'visitEvery',
      why: 'visitEvery_months',
      shown: (of) => String(of.visitEvery_months ?? 0),
      low: 0,
      high: 120,
      store: (v) => setSetting('visitEvery_months', Math.round(v) === 0 ? null : Math.round(v)),
    },
  ]
})
const usual = usualSettings()
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
const touched = (step: Step) =>
  [...new Set(step.writes.map((w) => whereText(w.path, speaker.value)))].slice(0, 3).join('; ')
const revisionOf = (id: string | null) => property.held!.steps.find((s) => s.id === id)?.revision ?? '?'
const takenBack = computed(() => new Set(property.held!.steps.map((s) => s.undoes)))
async function saveCsv(): Promise<void> {
  const { writeReadingsCsv } = await import('../../../../../core/formats')
  const facts = property.facts!
  const readings = jobsInOrder(facts)
    .reverse()
    .flatMap((id) => standingReadings(facts, id).map((l) => l.reading))
  saveText(`${site.value.about.name} readings.csv`, writeReadingsCsv(site.value, readings), 'text/csv')
}
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
          <PickOne
            id="units"
            :model-value="unitsChoice"
            :label="t('record.units')"
            :options="[
              { value: 'metric', label: t('record.metric') },
              { value: 'imperial', label: t('record.imperial') },
            ]"
            @update:model-value="storeUnits($event)"
          />
          <div class="two">
            <FigureField
              v-for="f in fields"
              :id="`f-${f.key}`"
              :key="f.key"
              :label="f.unit ? `${t(`record.${f.key}`)}, ${f.unit}` : t(`record.${f.key}`)"
              :why="t(`record.why.${f.why}`)"
              :shown="f.shown(settings)"
              :ours="f.shown(usual)"
              :low="f.low"
              :high="f.high"
              :fixed="property.viewed !== null"
              @store="property.change([f.store($event)])"
            />
          </div>
        </section>
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
                <AppButton v-if="f.clear && property.viewed === null" class="clear" @click="property.change(f.clear)">
                  {{ t('record.mended') }}
                </AppButton>
              </span>
            </li>
          </ul>
          <LazyPathFindings v-if="pathsOf(site).length > 0" />
        </section>
        <section class="sheet stack">
          <div class="row between">
            <h2>{{ t('record.steps') }}</h2>
            <AppButton
              :disabled="!property.undoable || property.pending > 0 || property.viewed !== null"
              @click="property.undo()"
            >
              {{ t('record.undoStep') }}
            </AppButton>
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
              <AppButton look="plain" class="see" @click="property.view(s.revision - 1)">
                {{ t('record.before') }}
              </AppButton>
            </li>
          </ol>
          <p v-if="(property.held!.steps.at(-1)?.revision ?? 1) > 1">
            <AppButton @click="property.loadOlder()">{{ t('record.older') }}</AppButton>
          </p>
        </section>
        <section class="sheet stack">
          <h2>{{ t('record.file') }}</h2>
          <p class="quiet">{{ t('record.saveHow') }}</p>
          <TickBox v-model="past">{{ t('record.withPast') }}</TickBox>
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
            <AppButton @click="saveCsv">{{ t('csv.outAll') }}</AppButton>
          </p>
        </section>
        <KeepOrGo :id="String(route.params.id)" :is-archived="property.held!.archived" />
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
