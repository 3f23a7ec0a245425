<script setup lang="ts">
import {
  endKey,
  getOrThrow,
  terminalEnd,
  type Command,
  type ControllerId,
  type Site,
  type TerminalId,
} from '../../../core/site'
import { doorOf, inventoryOf, unlandedAt, type Unlanded } from '../../../core/cabinet'
import { joinCommands, looseCommands, newTroubles } from '../../../core/splice'
import type { Outcome } from '../../../core/refusal'
import { sayTrouble } from '../../../words/breach'
import { useWiringWords } from '../../composables/useWiringWords'
import { valueOf } from '../../lib/fields'

/** The terminals as on the door, what is under each clamp, and what lies in the cabinet under none. */
const props = defineProps<{ site: Site; controller: ControllerId; fixed: boolean }>()
const emit = defineEmits<{ keep: [outcome: Outcome<Command[]>] }>()
const { t, speaker } = useWiringWords(() => props.site.settings.units)
const record = computed(() => getOrThrow(props.site.controllers, props.controller))
const door = computed(() => doorOf(props.site, props.controller))
const unlanded = computed(() => unlandedAt(props.site, record.value.place))
const inventory = computed(() => inventoryOf(props.site, props.controller))
const valves = (coils: readonly string[]) =>
  coils
    .map((d) => {
      const v = getOrThrow(props.site.devices, d)
      return v.tag ?? v.name
    })
    .join(', ')

// Landing: a conductor, then a terminal; what it would bring about is told first.
const chosen = ref<string | null>(null)
const onto = ref<TerminalId | ''>('')
const end = computed(() => unlanded.value.find((u) => endKey(u.end) === chosen.value) ?? null)
const wish = computed(() =>
  end.value && onto.value !== ''
    ? joinCommands(
        props.site,
        record.value.place,
        [terminalEnd(props.controller, onto.value), end.value.end],
        'terminal',
      )
    : null,
)
const troubles = computed(() => (wish.value?.ok ? newTroubles(props.site, wish.value.value) : []))
function land(): void {
  if (wish.value) {
    emit('keep', wish.value)
    chosen.value = null
    onto.value = ''
  }
}
const off = (terminal: TerminalId) =>
  emit('keep', {
    ok: true,
    value: looseCommands(
      props.site,
      door.value.find((d) => d.terminal === terminal)!.landed.map((s) => s.end),
    ),
  })
const nameOf = (u: Unlanded) => `${u.seen.from} ${u.seen.colour ?? t('boxes.unsaid')}, ${t(`door.state.${u.state}`)}`
const relabel = (terminal: TerminalId, label: string) =>
  emit('keep', {
    ok: true,
    value: [
      {
        do: 'set',
        in: 'controllers',
        id: props.controller,
        field: 'terminals',
        value: { ...record.value.terminals, [terminal]: { ...record.value.terminals[terminal]!, label: label.trim() } },
      },
    ],
  })
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('door.door') }}</h2>
    <p class="quiet">{{ t('door.inventory', { ...inventory }) }}</p>
    <ol class="door">
      <li v-for="d in door" :key="d.terminal" :class="[d.role, { empty: d.landed.length === 0 }]">
        <span class="peg figure">{{ d.label || d.tag }}</span>
        <span class="wires">
          <CoreSwatch v-for="s in d.landed" :key="endKey(s.end)" :colour="s.colour" :width="26" />
          <span v-if="d.landed.length === 0" class="quiet">{{ t('door.free') }}</span>
        </span>
        <span class="what">
          <strong>{{ d.name }}</strong>
          {{ ' ' }}
          <span class="quiet">
            {{ d.landed.map((s) => `${s.from} ${s.colour ?? ''}`.trim()).join(', ') }}
            <template v-if="d.coils.length > 0">→ {{ valves(d.coils) }}</template>
          </span>
          <span v-if="d.unknown > 0" class="doubtful">{{ t('door.unknown') }}</span>
        </span>
        <TextField
          v-if="d.role === 'master'"
          class="input label figure"
          :model-value="d.label"
          :placeholder="t('door.label')"
          :aria-label="t('door.labelOf', { terminal: d.tag })"
          :readonly="fixed"
          @change="relabel(d.terminal, valueOf($event))"
        />
        <AppButton
          v-if="!fixed && d.landed.length > 0"
          look="plain"
          class="off"
          :aria-label="`${t('door.off')}: ${d.tag}`"
          @click="off(d.terminal)"
        >
          {{ t('door.off') }}
        </AppButton>
      </li>
    </ol>
    <div v-if="unlanded.length > 0" class="stack unlanded">
      <h3>{{ t('door.unlanded') }}</h3>
      <p class="chips">
        <AppButton
          v-for="u in unlanded"
          :key="endKey(u.end)"
          look="bare"
          class="chip"
          :class="{ chosen: chosen === endKey(u.end) }"
          :aria-pressed="chosen === endKey(u.end)"
          :disabled="fixed"
          @click="chosen = chosen === endKey(u.end) ? null : endKey(u.end)"
        >
          <CoreSwatch :colour="u.seen.colour" :width="20" />
          {{ nameOf(u) }}
        </AppButton>
      </p>
      <p v-for="r in troubles" :key="r.code" :class="r.weight === 'wrong' ? 'fault' : 'doubtful'">
        <StateMark :state="r.weight === 'wrong' ? 'fault' : 'doubtful'" silent />
        {{ t('door.would') }} {{ sayTrouble(r, speaker) }}
      </p>
      <div v-if="end" class="row landing">
        <PickOne
          id="land-on"
          v-model="onto"
          class="pick"
          :label="t('door.landOn')"
          :options="[
            { value: '', label: t('door.whichTerminal') },
            ...door.map((d) => ({ value: d.terminal, label: `${d.label || d.tag} ${d.name}` })),
          ]"
        />
        <AppButton look="primary" :disabled="wish === null" @click="land">
          {{ t('door.land') }}
        </AppButton>
      </div>
    </div>
  </section>
</template>

<style scoped>
.door {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(430px, 100%), 1fr));
  gap: 0 24px;
}
.door li {
  display: grid;
  grid-template-columns: 52px auto 1fr auto;
  gap: 10px;
  align-items: center;
  min-height: 44px;
  border-bottom: 1px solid var(--rule);
}
.peg {
  justify-self: start;
  min-width: 44px;
  text-align: center;
  padding: 4px 6px;
  border: 2px solid var(--ink);
  border-radius: var(--corner);
  font-weight: 700;
}
.common .peg {
  background: var(--ink);
  color: var(--sheet);
}
.empty .peg {
  border-style: dashed;
  color: var(--quiet);
  border-color: var(--quiet);
}
.wires {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  max-width: 90px;
}
.what {
  font-size: 14px;
  min-width: 0;
}
.label {
  grid-column: 3;
  grid-row: 2;
  width: 140px;
  min-height: 34px;
  padding: 2px 8px;
  margin-bottom: 4px;
  font-size: 13px;
}
.off {
  grid-column: 4;
  grid-row: 1;
  min-height: 34px;
  padding-block: 2px;
  font-size: 14px;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.chip {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 36px;
  padding: 4px 10px;
  border: 1px solid var(--rule);
  border-radius: 18px;
  background: var(--paper);
  cursor: pointer;
  font-size: 14px;
}
.chip.chosen {
  border-color: var(--copper);
  background: var(--copper-soft);
  font-weight: 700;
}
.unlanded {
  gap: 8px;
}
.pick {
  width: auto;
  min-width: 160px;
}
@media (max-width: 759px) {
  .chip,
  .off,
  .label {
    min-height: 48px;
  }
  .chip,
  .what {
    font-size: 16px;
  }
  .door li {
    gap: 4px 8px;
  }
  .wires {
    max-width: 60px;
  }
}
</style>
