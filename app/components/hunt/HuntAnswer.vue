<script setup lang="ts">
import { readText } from '../../../core/expect'
import { answerOf, testKey, testKindOf, type FieldTest, type Meter, type ReadingValue } from '../../../core/record'
import type { DeviceId, Site } from '../../../core/site'
import type { Speaker } from '../../../words'
import { sayAnswer, sayOption, sayTest } from '../../../words/hunt'
import { useHuntWords } from '../../composables/useHuntWords'
import { figureIn } from '../../lib/figures'
import { withOrWithout } from '../../lib/options'

/** The answer of one test: a figure with a key for open, two words, or the zones that water. */
const props = defineProps<{
  test: FieldTest
  site: Site
  meter: Meter
  speaker: Speaker
  zones: readonly { device: DeviceId; name: string }[]
}>()
const emit = defineEmits<{ value: [value: ReadingValue] }>()
const { t } = useHuntWords(() => props.site.settings.units)
const kind = computed(() => testKindOf(props.test.kind).answer)
const options = computed(() => answerOf(props.test.kind).options)
const isFigure = computed(() => answerOf(props.test.kind).unit !== null)
/** Two of these stand on the page: each has its own field. */
const id = useId()
const [text, bad] = [ref(''), ref('')]
const watered = ref<DeviceId[]>([])
watch(
  () => testKey(props.test),
  () => {
    text.value = ''
    bad.value = ''
    watered.value = []
  },
)
function keep(): void {
  bad.value = ''
  if (kind.value === 'ohms') {
    const read = readText(text.value, props.meter)
    if (read.ok) emit('value', read.value)
    else bad.value = t('diagnose.badOhms')
    return
  }
  const [high, sentence] = kind.value === 'volts' ? [300, 'diagnose.badVolts'] : [20_000, 'diagnose.badMetres']
  const figure = figureIn(text.value, 0, high)
  if (figure === null || figure < 0 || figure > high) {
    bad.value = t(sentence)
    return
  }
  emit('value', kind.value === 'volts' ? { kind: 'volt', volt: figure } : { kind: 'tone', lost_m: figure })
}
</script>

<template>
  <div class="stack answer" role="group" :aria-label="sayTest(test, site, speaker)">
    <form v-if="isFigure" class="row figures" @submit.prevent="keep">
      <div class="field">
        <label :for="`${id}-figure`">
          {{ t(kind === 'ohms' ? 'diagnose.ohms' : kind === 'volts' ? 'diagnose.volts' : 'diagnose.metres') }}
        </label>
        <TextField
          :id="`${id}-figure`"
          v-model="text"
          class="big figure"
          :inputmode="kind === 'ohms' ? 'text' : 'decimal'"
          autocomplete="off"
          :aria-invalid="bad !== ''"
          :aria-describedby="`${id}-bad`"
        />
      </div>
      <AppButton v-if="kind === 'ohms'" @click="emit('value', { kind: 'open' })">
        {{ t('diagnose.open') }}
      </AppButton>
      <AppButton v-if="kind === 'tone'" @click="emit('value', { kind: 'tone', lost_m: null })">
        {{ sayAnswer(test, { kind: 'no', low: null, high: null }, speaker) }}
      </AppButton>
      <AppButton look="primary" type="submit">{{ t('diagnose.keep') }}</AppButton>
    </form>
    <div v-else-if="kind === 'waters'" class="stack">
      <div class="row zones">
        <TickBox
          v-for="z in zones"
          :key="z.device"
          :model-value="watered.includes(z.device)"
          @update:model-value="watered = withOrWithout(watered, z.device, $event)"
        >
          {{ z.name }}
        </TickBox>
      </div>
      <AppButton look="primary" @click="emit('value', { kind: 'waters', valves: watered })">
        {{ watered.length === 0 ? t('diagnose.nothingWaters') : t('diagnose.keep') }}
      </AppButton>
    </div>
    <div v-else class="row">
      <AppButton v-for="o in options" :key="o.says" class="word" @click="emit('value', o.value)">
        {{ sayOption(o, speaker) }}
      </AppButton>
    </div>
    <p v-if="bad" :id="`${id}-bad`" class="bad fault" role="alert">{{ bad }}</p>
  </div>
</template>

<style scoped>
.answer {
  gap: 8px;
}
.figures {
  align-items: end;
}
.figures .field {
  flex: 1 1 120px;
}
.big :deep(input),
.big {
  font-size: 22px;
  font-weight: 700;
}
.word {
  flex: 1 1 120px;
  min-height: 48px;
}
.word::first-letter {
  text-transform: uppercase;
}
.zones {
  max-height: 220px;
  overflow: auto;
}
.zones label {
  min-height: 40px;
  gap: 6px;
}
.bad {
  font-weight: 600;
}
</style>
