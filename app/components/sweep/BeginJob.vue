<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { parseOhms } from '../../../core/quantity'
import type { JobKind, Meter } from '../../../core/record'
import { commonOf, entries, tagAndName, type ControllerId } from '../../../core/site'
import { authorName, lastMeter, rememberAuthor, rememberMeter } from '../../lib/device'
import { namesIn } from '../../lib/names'
import { figureIn, temperatureMeant, temperatureShown } from '../../lib/figures'
import { timeText } from '../../composables/useSpeaker'
import { useVisitToday } from '../../composables/useVisitToday'
import { useProperty } from '../../stores/property'
import { optionsOf } from '../../lib/options'

/** What a sweep or a hunt needs to know before its first reading: who, how warm the ground is, and the meter, once. */
const props = defineProps<{
  kind: Extract<JobKind, 'sweep' | 'hunt'>
  heading: string
  nameLabel: string
  named: string
  /** The job whose readings are taken along: its controller, and at first its temperature. */
  takes?: string | null
}>()
const visible = defineModel<boolean>('visible', { required: true })
const emit = defineEmits<{ begun: [job: string] }>()
const { t } = useI18n()
const property = useProperty()
const underWay = useVisitToday()

const form = reactive({
  controller: '' as ControllerId,
  title: '',
  author: '',
  others: '',
  ground: '',
  meterName: '',
  openMark: 'OL' as Meter['openMark'],
  accuracy: '',
  offset: '',
  leadZero: '',
  highest: '',
})
const bad = ref<Record<string, string>>({})
const units = computed(() => property.site!.settings.units)
const unitText = computed(() => (units.value.temperature === 'F' ? '°F' : '°C'))
/** Where there is a common to read from; a path alone has none. */
const controllers = computed(() => {
  const all = entries(property.site!.controllers)
  const read = all.filter(([id]) => commonOf(property.site!, id) !== null)
  return read.length > 0 ? read : all
})

watch(
  visible,
  (now) => {
    if (!now || !property.site) return
    const known = lastMeter()
    const before = props.takes ? property.facts!.jobs[props.takes] : undefined
    Object.assign(form, {
      controller: before?.controller ?? controllers.value[0]?.[0] ?? '',
      title: props.named,
      author: authorName(),
      others: '',
      ground: temperatureShown(before?.ground_C ?? property.site.settings.ground_C, units.value),
      meterName: known.name,
      openMark: known.openMark,
      accuracy: String(known.accuracy_ratio * 100),
      offset: String(known.offset_ohm),
      leadZero: String(known.leadZero_ohm),
      highest:
        known.highest_ohm >= 1e6
          ? `${known.highest_ohm / 1e6}M`
          : known.highest_ohm >= 1e3
            ? `${known.highest_ohm / 1e3}k`
            : String(known.highest_ohm),
    })
    bad.value = {}
  },
  { immediate: true },
)

async function begin(): Promise<void> {
  bad.value = {}
  const need = (
    field: keyof typeof form,
    low: number,
    high: number,
    label: string,
    value = figureIn(form[field], low, high),
  ) => {
    if (value === null || value < low || value > high)
      bad.value[field] = t('test.bad.number', { field: label, low, high })
    return value ?? low
  }
  const F = units.value.temperature === 'F'
  const ground = need('ground', F ? -40 : -40, F ? 194 : 90, t('test.ground', { unit: unitText.value }))
  const meter: Meter = {
    name: form.meterName.trim(),
    openMark: form.openMark,
    accuracy_ratio: need('accuracy', 0, 20, t('test.accuracy')) / 100,
    offset_ohm: need('offset', 0, 20, t('test.offset')),
    leadZero_ohm: need('leadZero', 0, 20, t('test.leadZero')),
    highest_ohm: need('highest', 100, 1e9, t('test.highest'), parseOhms(form.highest)),
  }
  if (bad.value.highest) bad.value.highest = t('test.bad.highest')
  if (Object.keys(bad.value).length > 0) return
  rememberAuthor(form.author.trim())
  rememberMeter(meter)
  const [at, author] = [new Date().toISOString(), form.author.trim()]
  const visit =
    underWay.value?.id ?? (await property.record({ kind: 'visit', fact: { at, author, people: namesIn(form.others) } }))
  const id = await property.record({
    kind: 'job',
    fact: {
      visit,
      at,
      author,
      kind: props.kind,
      controller: form.controller,
      title: form.title.trim(),
      ground_C: temperatureMeant(ground, units.value),
      coil_C: null,
      meter,
      ...(props.takes ? { takes: props.takes } : {}),
    },
  })
  visible.value = false
  emit('begun', id)
}
</script>

<template>
  <AppDialog v-model:visible="visible" :title="heading">
    <form class="stack" novalidate @submit.prevent="begin">
      <PickOne
        v-if="controllers.length > 1 && !takes"
        id="sweep-controller"
        v-model="form.controller"
        :label="t('test.controller')"
        :options="controllers.map(([id, c]) => ({ value: id, label: tagAndName(c) }))"
      />
      <div class="two">
        <div class="field">
          <label for="sweep-title">{{ nameLabel }}</label>
          <TextField id="sweep-title" v-model="form.title" maxlength="80" />
        </div>
        <div class="field">
          <label for="sweep-author">{{ t('test.author') }}</label>
          <TextField id="sweep-author" v-model="form.author" maxlength="80" autocomplete="name" autofocus />
        </div>
      </div>
      <p v-if="underWay" class="quiet">
        {{ t('test.partOf', { at: timeText(underWay.at), people: underWay.people || '?' }) }}
      </p>
      <div v-else class="field">
        <label for="sweep-others">{{ t('test.others') }}</label>
        <TextField id="sweep-others" v-model="form.others" maxlength="400" />
      </div>
      <div class="field">
        <label for="sweep-ground">{{ t('test.ground', { unit: unitText }) }}</label>
        <TextField
          id="sweep-ground"
          v-model="form.ground"
          inputmode="decimal"
          :aria-invalid="!!bad.ground"
          aria-describedby="sweep-ground-how"
        />
        <p id="sweep-ground-how" class="how">{{ t('test.groundHow') }}</p>
        <p v-if="bad.ground" class="bad" role="alert">{{ bad.ground }}</p>
      </div>
      <fieldset class="stack">
        <legend>
          <h3>{{ t('test.meter') }}</h3>
          <p class="quiet">{{ t('test.meterHow') }}</p>
        </legend>
        <div class="two">
          <div class="field">
            <label for="meter-name">{{ t('test.meterName') }}</label>
            <TextField id="meter-name" v-model="form.meterName" maxlength="60" />
          </div>
          <PickRadio
            v-model="form.openMark"
            :label="t('test.openMark')"
            :options="optionsOf(['OL', '1'], (m) => t(`test.mark${m}`))"
          />
        </div>
        <div class="four">
          <div v-for="field in ['accuracy', 'offset', 'leadZero', 'highest'] as const" :key="field" class="field">
            <label :for="`meter-${field}`">{{ t(`test.${field}`) }}</label>
            <TextField :id="`meter-${field}`" v-model="form[field]" inputmode="decimal" :aria-invalid="!!bad[field]" />
          </div>
        </div>
        <p
          v-for="field in (['accuracy', 'offset', 'leadZero', 'highest'] as const).filter((f) => bad[f])"
          :key="field"
          class="bad fault"
          role="alert"
        >
          {{ bad[field] }}
        </p>
      </fieldset>
      <div class="row end">
        <AppButton look="plain" @click="visible = false">{{ t('app.cancel') }}</AppButton>
        <AppButton look="primary" type="submit">{{ t('test.begin') }}</AppButton>
      </div>
    </form>
  </AppDialog>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
.four {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 12px;
  align-items: end;
}
legend {
  padding: 0;
  margin-bottom: 8px;
}
@media (max-width: 759px) {
  .two {
    grid-template-columns: 1fr;
  }
  .four {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
