<script setup lang="ts">
import { getOrThrow, type Command, type PlaceId, type Site } from '../../../core/site'
import {
  censusCounts,
  censusOf,
  colourCommands,
  coreCountCommands,
  cutCommands,
  type CensusCore,
} from '../../../core/splice'
import type { Outcome } from '../../../core/refusal'
import { useWiringWords } from '../../composables/useWiringWords'
import { today } from '../../lib/today'
import { valueOf } from '../../lib/fields'

/** Every core of every cable at a box: at work, common, spare, or nobody knows; one chosen can be described. */
const props = defineProps<{ site: Site; place: PlaceId; fixed: boolean }>()
const emit = defineEmits<{ keep: [outcome: Outcome<Command[]>] }>()
const { t } = useWiringWords(() => props.site.settings.units)
const census = computed(() => censusOf(props.site, props.place))
const cables = computed(() =>
  [...new Set(census.value.map((c) => c.cable))].map((cable) => ({
    cable,
    record: getOrThrow(props.site.cables, cable),
    cores: census.value.filter((c) => c.cable === cable),
  })),
)
const keyOf = (c: CensusCore) => `${c.cable} ${c.core}`
const chosen = ref<string | null>(null)
const core = computed(() => census.value.find((c) => keyOf(c) === chosen.value) ?? null)
const stopOf = (c: CensusCore) => getOrThrow(props.site.cables, c.cable).stops.find((s) => s.place === props.place)!.id
const own = (c: CensusCore) => getOrThrow(getOrThrow(props.site.cables, c.cable).cores, c.core)
const inFull = (c: CensusCore) => {
  const what = `${c.cableTag} ${c.colour ?? t('boxes.unsaid')}: ${t(`boxes.use.${c.use}`)}`
  return `${[what, c.terminal].filter(Boolean).join(' ')}, ${t(`boxes.here.${c.here}`)}`
}
const short = (c: CensusCore) =>
  c.use === 'common' ? 'C' : c.use === 'in_use' ? c.terminal!.split(':')[1]! : c.use === 'spare' ? '–' : '?'
</script>

<template>
  <section class="sheet stack">
    <div class="row head">
      <h2>{{ t('boxes.cores') }}</h2>
      <span class="quiet">{{ t('boxes.counts', censusCounts(census)) }}</span>
    </div>
    <div v-for="c in cables" :key="c.cable" class="cable">
      <strong class="figure">{{ c.record.tag ?? c.record.name }}</strong>
      <ul class="cores">
        <li v-for="k in c.cores" :key="k.core">
          <AppButton
            look="bare"
            class="core"
            :class="[k.use, k.here, { chosen: chosen === keyOf(k) }]"
            :aria-pressed="chosen === keyOf(k)"
            :aria-label="inFull(k)"
            @click="chosen = chosen === keyOf(k) ? null : keyOf(k)"
          >
            <CoreSwatch :colour="k.colour" :width="k.here === 'through' ? 34 : 22" />
            <span class="figure">{{ short(k) }}</span>
          </AppButton>
        </li>
      </ul>
    </div>
    <p class="quiet small">{{ t('boxes.coresHow') }}</p>
    <form v-if="core" :key="`${place} ${keyOf(core)}`" class="edit" @submit.prevent>
      <p class="row">
        <CoreSwatch :colour="core.colour" />
        <strong>{{ core.cableTag }} {{ core.colour ?? t('boxes.unsaid') }}</strong>
        <span class="quiet">
          {{ t(`boxes.use.${core.use}`) }}{{ core.terminal ? ` ${core.terminal}` : '' }},
          {{ t(`boxes.here.${core.here}`) }}
        </span>
      </p>
      <div v-if="!fixed" class="row fields">
        <div class="field">
          <label :for="`own-${place}`">{{ t('boxes.colour') }}</label>
          <TextField
            :id="`own-${place}`"
            class="input"
            :model-value="own(core).colour?.value ?? ''"
            @change="
              emit('keep', {
                ok: true,
                value: colourCommands(site, core.cable, core.core, null, valueOf($event), today()),
              })
            "
          />
        </div>
        <div class="field">
          <label :for="`here-${place}`">{{ t('boxes.colourHere') }}</label>
          <TextField
            :id="`here-${place}`"
            class="input"
            :model-value="own(core).colourAt[stopOf(core)] ?? ''"
            @change="
              emit('keep', {
                ok: true,
                value: colourCommands(site, core.cable, core.core, stopOf(core), valueOf($event), today()),
              })
            "
          />
        </div>
        <AppButton
          v-if="core.here === 'through'"
          @click="emit('keep', { ok: true, value: cutCommands(site, core.cable, core.core, stopOf(core), true) })"
        >
          {{ t('boxes.cut') }}
        </AppButton>
        <AppButton
          v-else-if="core.here === 'cut'"
          @click="emit('keep', { ok: true, value: cutCommands(site, core.cable, core.core, stopOf(core), false) })"
        >
          {{ t('boxes.heal') }}
        </AppButton>
        <div class="field few">
          <label :for="`count-${place}`">
            {{ t('boxes.count', { have: Object.keys(getOrThrow(site.cables, core.cable).cores).length }) }}
          </label>
          <TextField
            :id="`count-${place}`"
            class="figure"
            inputmode="numeric"
            :placeholder="String(Object.keys(getOrThrow(site.cables, core.cable).cores).length)"
            @change="emit('keep', coreCountCommands(site, core.cable, Number(valueOf($event))))"
          />
        </div>
        <div class="field">
          <label :for="`filler-${place}`">{{ t('boxes.filler') }}</label>
          <TextField
            :id="`filler-${place}`"
            class="input"
            :model-value="getOrThrow(site.cables, core.cable).filler"
            @change="
              emit('keep', {
                ok: true,
                value: [{ do: 'set', in: 'cables', id: core.cable, field: 'filler', value: valueOf($event).trim() }],
              })
            "
          />
        </div>
      </div>
    </form>
  </section>
</template>

<style scoped>
.stack {
  gap: 10px;
}
.head {
  justify-content: space-between;
}
.cable {
  display: flex;
  gap: 12px;
  align-items: baseline;
}
.cores {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.core {
  display: grid;
  justify-items: center;
  gap: 0;
  min-width: 44px;
  min-height: 44px;
  padding: 4px;
  border: 1px solid transparent;
  border-radius: var(--corner);
  background: none;
  cursor: pointer;
  font-size: 13px;
}
.core.chosen {
  border-color: var(--copper);
  background: var(--copper-soft);
}
.core:hover {
  border-color: var(--rule);
}
.core.through {
  opacity: 0.75;
}
.core.unknown {
  color: var(--doubtful);
  font-weight: 700;
}
.small {
  font-size: 13px;
}
.edit {
  display: grid;
  gap: 8px;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
.fields {
  align-items: end;
}
.fields .input {
  width: 150px;
}
.few .input {
  width: 90px;
}
@media (max-width: 759px) {
  .core {
    min-width: 48px;
    min-height: 48px;
    font-size: 15px;
  }
  .small {
    font-size: 15px;
  }
  .cable {
    display: grid;
    gap: 2px;
  }
  .fields .field {
    width: 100%;
  }
  .fields .input {
    width: 100%;
  }
}
</style>
