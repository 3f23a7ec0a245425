<script setup lang="ts">
import type { ControllerId, TerminalId } from '../../../core/site'
import type { CheckEnd, CheckId, Told } from '../../../core/symptom'
import { useHuntWords } from '../../composables/useHuntWords'
import type { HuntZone } from '../../composables/useHuntZones'

/** The symptom first: the zones that stay dry are tapped, and one tap says how the rest is. */
const props = defineProps<{
  zones: readonly HuntZone[]
  controller: ControllerId
  again: boolean
}>()
const emit = defineEmits<{
  dry: [dry: readonly TerminalId[], rest: boolean]
  told: [told: Told]
  found: [zone: TerminalId, end: CheckEnd, says: string]
}>()
const { t } = useHuntWords(() => ({ length: 'm', temperature: 'C' }))
const known = computed(() => props.zones.some((s) => s.dry !== null))
const asking = ref(!known.value)
/** After a repair only the zones that it could have touched are asked for. */
const unknown = computed(() => props.zones.filter((z) => z.dry === null))
const asked = computed(() => (props.again && unknown.value.length > 0 ? unknown.value : props.zones))
const dryNow = () => new Set<TerminalId>(props.zones.filter((s) => s.dry).map((s) => s.terminal))
const dry = ref(dryNow())
watch(
  () => props.again && unknown.value.length > 0,
  (some) => {
    if (!some) return
    dry.value = dryNow()
    asking.value = true
  },
)
function tap(terminal: TerminalId): void {
  const next = new Set(dry.value)
  if (!next.delete(terminal)) next.add(terminal)
  dry.value = next
}
function tell(rest: boolean): void {
  emit('dry', [...dry.value], rest)
  asking.value = false
}
/** Another symptom is being told, or the valve looked at for one. */
const others = ref(false)
const looking = ref<{ check: CheckId; zone: TerminalId } | null>(null)
function leave(): void {
  others.value = false
  looking.value = null
  asking.value = false
}
function other(told: Told): void {
  emit('told', told)
  leave()
}
function found(end: CheckEnd, says: string): void {
  emit('found', looking.value!.zone, end, says)
  leave()
}
/** A long list gives way to a short card: what is asked stays in view. */
const card = useTemplateRef<HTMLElement>('card')
watch([others, looking], () => void nextTick(() => card.value?.scrollIntoView({ block: 'start' })))
const nameOf = (terminal: TerminalId) => props.zones.find((z) => z.terminal === terminal)?.name ?? ''
</script>

<template>
  <section ref="card" class="sheet stack symptoms" :aria-label="t('diagnose.symptoms')">
    <ValveCheck v-if="looking" :check="looking.check" :zone="nameOf(looking.zone)" @found="found" @wiring="leave" />
    <SymptomDoor
      v-else-if="others"
      :zones="zones"
      :controller="controller"
      @told="other"
      @look="(check, zone) => (looking = { check, zone })"
      @back="others = false"
    />
    <template v-else-if="asking">
      <div>
        <h2>{{ t(again ? 'diagnose.symptomsNow' : 'diagnose.symptoms') }}</h2>
        <p class="quiet">{{ t('diagnose.symptomsHow') }}</p>
      </div>
      <div class="zones">
        <AppButton
          v-for="s in asked"
          :key="s.terminal"
          look="bare"
          class="zone"
          :aria-pressed="dry.has(s.terminal)"
          :class="{ dry: dry.has(s.terminal) }"
          @click="tap(s.terminal)"
        >
          <span class="figure peg">{{ s.tag }}</span>
          <span class="name">{{ s.name }}</span>
          <span class="mark">{{ dry.has(s.terminal) ? t('diagnose.dry') : '' }}</span>
        </AppButton>
      </div>
      <OutOfStep :zones="asked.filter((z) => dry.has(z.terminal))" :controller="controller" />
      <div class="row">
        <AppButton look="primary" @click="tell(true)">{{ t('diagnose.rest') }}</AppButton>
        <AppButton :disabled="dry.size === 0" @click="tell(false)">
          {{ t('diagnose.restUnknown') }}
        </AppButton>
        <AppButton look="plain" @click="others = true">{{ t('symptom.else') }}</AppButton>
      </div>
    </template>
    <div v-else class="row told">
      <span>
        <strong>
          {{
            t('diagnose.symptomsKept', {
              dry: zones.filter((s) => s.dry).length,
              well: zones.filter((s) => s.dry === false).length,
            })
          }}
        </strong>
        {{ ' ' }}
        <span class="quiet">
          {{
            zones
              .filter((s) => s.dry)
              .map((s) => s.tag)
              .join(', ')
          }}
        </span>
      </span>
      <span class="row">
        <AppButton look="plain" @click="others = true">{{ t('symptom.else') }}</AppButton>
        <AppButton look="plain" @click="asking = true">{{ t('diagnose.again') }}</AppButton>
      </span>
    </div>
  </section>
</template>

<style scoped>
.symptoms {
  scroll-margin-top: 64px;
}
.zones {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 8px;
}
.zone {
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  min-height: 48px;
  padding: 4px 8px;
  border: 1px solid var(--rule);
  border-radius: var(--corner);
  background: var(--sheet);
  color: var(--ink);
  text-align: left;
  cursor: pointer;
  font: inherit;
}
.zone.dry {
  border-color: var(--fault);
  border-width: 2px;
}
.peg {
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  text-align: center;
  font-weight: 700;
  font-size: 14px;
  padding: 2px 0;
}
.name {
  overflow-wrap: anywhere;
  line-height: 1.25;
}
.mark {
  color: var(--fault);
  font-weight: 700;
}
.told {
  justify-content: space-between;
}
h2 {
  font-size: 17px;
}
@media (max-width: 759px) {
  .zones {
    grid-template-columns: 1fr 1fr;
  }
  .zone {
    font-size: 15px;
  }
}
</style>
