<script setup lang="ts">
import { WIRING_STATES, type WiringState } from '../../../core/record'
import type { ControllerId, TerminalId } from '../../../core/site'
import { SYMPTOMS, type CheckId, type Symptom, type Told } from '../../../core/symptom'
import { useHuntWords } from '../../composables/useHuntWords'
import type { HuntZone } from '../../composables/useHuntZones'
import { optionsOf } from '../../lib/options'

/**
 * Any other symptom: which, of which zone, and where it leads: to the wiring as a reading, or to a look at the valve.
 */
const props = defineProps<{ zones: readonly HuntZone[]; controller: ControllerId }>()
const emit = defineEmits<{ told: [told: Told]; look: [check: CheckId, zone: TerminalId]; back: [] }>()
const { t } = useHuntWords(() => ({ length: 'm', temperature: 'C' }))
const OTHERS = (Object.keys(SYMPTOMS) as Symptom[]).filter((s) => s !== 'dry')
const chosen = ref<Symptom | null>(null)
const zone = ref<TerminalId>(props.zones[0]!.terminal)
const other = ref<TerminalId>((props.zones[1] ?? props.zones[0]!).terminal)
const state = ref<WiringState>('wet')
const bad = ref('')

const kind = computed(() => chosen.value && SYMPTOMS[chosen.value])
/** What a sequencer out of step looks like: a zone that is another’s, two at once, one that never comes. */
const OUT_OF_STEP: readonly Symptom[] = ['wrong_one', 'two_together', 'comes_and_goes']
const behind = computed(() => {
  if (chosen.value === null || !OUT_OF_STEP.includes(chosen.value)) return []
  const asked = [zone.value, ...(kind.value?.asks === 'two_zones' ? [other.value] : [])]
  return props.zones.filter((z) => asked.includes(z.terminal))
})
const options = computed(() => props.zones.map((z) => ({ value: z.terminal, label: `${z.tag} ${z.name}` })))
function pick(symptom: Symptom): void {
  chosen.value = symptom
  bad.value = ''
}
function weigh(): void {
  const { asks } = kind.value!
  if (asks === 'two_zones' && zone.value === other.value) {
    bad.value = t('symptom.same')
    return
  }
  emit('told', {
    symptom: chosen.value!,
    zones: asks === 'besides' || asks === 'nothing' ? [] : [zone.value],
    other: asks === 'two_zones' || asks === 'besides' ? other.value : null,
    state: asks === 'zone_and_state' ? state.value : null,
  })
}
</script>

<template>
  <div class="stack">
    <div>
      <h2>{{ chosen ? t(`symptom.name.${chosen}`) : t('symptom.title') }}</h2>
      <p class="quiet">{{ chosen ? t(`symptom.why.${chosen}`) : t('symptom.how') }}</p>
    </div>
    <ul v-if="!chosen" class="names">
      <li v-for="s in OTHERS" :key="s">
        <AppButton class="name" @click="pick(s)">{{ t(`symptom.name.${s}`) }}</AppButton>
      </li>
    </ul>
    <template v-else-if="kind">
      <div class="row fields">
        <PickOne
          v-if="kind.asks !== 'nothing' && kind.asks !== 'besides'"
          id="symptom-zone"
          v-model="zone"
          :label="t('symptom.zone')"
          :options="options"
        />
        <PickOne
          v-if="kind.asks === 'two_zones' || kind.asks === 'besides'"
          id="symptom-other"
          v-model="other"
          :label="t(`symptom.other.${kind.asks}`)"
          :options="options"
        />
        <PickRadio
          v-if="kind.asks === 'zone_and_state'"
          v-model="state"
          :label="t('symptom.state')"
          :options="optionsOf(WIRING_STATES, (s) => t(`symptom.states.${s}`))"
        />
      </div>
      <OutOfStep :zones="behind" :controller="controller" />
      <p v-if="bad" class="fault" role="alert">{{ bad }}</p>
      <div class="row">
        <AppButton v-if="kind.wiring" look="primary" @click="weigh">{{ t('symptom.weigh') }}</AppButton>
        <AppButton
          v-if="kind.check"
          :look="kind.wiring ? undefined : 'primary'"
          @click="emit('look', kind.check, zone)"
        >
          {{ t('symptom.look') }}
        </AppButton>
      </div>
    </template>
    <div>
      <AppButton look="plain" @click="chosen ? (chosen = null) : emit('back')">
        {{ chosen ? t('symptom.else') : t('symptom.back') }}
      </AppButton>
    </div>
  </div>
</template>

<style scoped>
h2 {
  font-size: 17px;
}
.names {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 8px;
  list-style: none;
  padding: 0;
  margin: 0;
}
.name {
  width: 100%;
  min-height: 48px;
  justify-content: flex-start;
  text-align: left;
}
.fields {
  align-items: end;
}
.fields .field {
  flex: 1 1 200px;
}
</style>
