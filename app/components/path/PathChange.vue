<script setup lang="ts">
import { changeSystem, genericSystem, GENERIC_SYSTEMS } from '../../../core/path'
import { lengthText } from '../../../core/quantity'
import { entries, getOrThrow, type DeviceId, type PathAt } from '../../../core/site'
import { moneyText } from '../../../words/sizing'
import { usePathPage } from '../../composables/usePath'

/** Another make on the controller: every decoder goes. What would be wanted instead, and what would not suit it. */
const props = defineProps<{ path: PathAt }>()
const { site, t } = usePathPage()
const targets = computed(() => [
  ...entries(site.value.systems)
    .filter(([id]) => id !== props.path.systemId)
    .map(([id, s]) => ({ value: String(id), label: s.name, system: s })),
  ...GENERIC_SYSTEMS.map((kind) => {
    const label = t(`twoWire.kinds.${kind}`)
    return { value: `generic ${kind}`, label, system: genericSystem(kind, label) }
  }),
])
const chosen = ref<string | null>(null)
const target = computed(() => targets.value.find((o) => o.value === chosen.value)?.system ?? null)
const change = computed(() => (target.value ? changeSystem(site.value, props.path, target.value) : null))
const tags = (ids: readonly DeviceId[]) => ids.map((id) => getOrThrow(site.value.devices, id).tag ?? id).join(', ')
const cables = (ids: readonly (keyof typeof site.value.cables)[]) =>
  ids.map((id) => getOrThrow(site.value.cables, id).tag ?? id).join(', ')
const points = computed(() => {
  const c = change.value
  if (!c) return []
  const leads = (why: 'long' | 'untwisted') => c.leads.filter((l) => l.why === why).map((l) => l.decoder)
  const { coilLead_m } = target.value!
  return [
    c.coils.length > 0 && t('twoWire.change.coils', { tags: tags(c.coils) }),
    c.crowded.length > 0 && t('twoWire.change.crowded', { tags: tags(c.crowded) }),
    leads('long').length > 0 &&
      t('twoWire.change.long', {
        tags: tags(leads('long')),
        most: lengthText(coilLead_m ?? 0, site.value.settings.units),
      }),
    leads('untwisted').length > 0 && t('twoWire.change.untwisted', { tags: tags(leads('untwisted')) }),
    c.cables.length > 0 && t('twoWire.change.cables', { tags: cables(c.cables) }),
    c.joints > 0 && t('twoWire.change.joints', { count: c.joints }),
    c.numbersShort > 0 && t('twoWire.change.numbers', { count: c.numbersShort }),
    c.tooLow > 0 && t('twoWire.change.tooLow', { count: c.tooLow, volt: c.weakest!.volt_V.toFixed(1) }),
  ].filter((s) => s !== false)
})
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('twoWire.change.title') }}</h2>
    <p class="quiet">{{ t('twoWire.change.how') }}</p>
    <PickOne
      v-model="chosen"
      class="narrow"
      :label="t('twoWire.change.to')"
      :options="[{ value: null, label: '–' }, ...targets]"
    />
    <template v-if="change">
      <p>
        <strong>{{ t('twoWire.change.out', { count: change.out }) }}</strong>
        {{ ' ' }}
        {{ t('twoWire.change.wanted') }}
        <template v-for="(w, i) in change.wanted" :key="`${w.outputs} ${w.power}`">
          {{ i > 0 ? ', ' : ''
          }}{{
            t('twoWire.change.kind', {
              count: w.count,
              outputs: t('twoWire.outputs', w.outputs),
              power: t(`twoWire.powers.${w.power}`),
            })
          }}
        </template>
        <span v-if="change.cents !== null">
          {{ ' ' }}{{ t('twoWire.change.cost', { cost: moneyText(change.cents) }) }}
        </span>
      </p>
      <p v-for="p in points" :key="p">
        <StateMark state="doubtful" silent />
        {{ p }}
      </p>
      <p v-if="points.length === 0">
        <StateMark state="fits" silent />
        {{ t('twoWire.change.suits') }}
      </p>
    </template>
  </section>
</template>

<style scoped>
.narrow {
  max-width: 360px;
}
</style>
