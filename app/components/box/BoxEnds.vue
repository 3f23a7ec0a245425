<script setup lang="ts">
import { endKey, type Command, type PlaceId, type Site } from '../../../core/site'
import {
  endsAt,
  joinCommands,
  looseCommands,
  newTroubles,
  newValveCommands,
  type ConnectorKind,
  type EndHere,
} from '../../../core/splice'
import type { Outcome } from '../../../core/refusal'
import { sayTrouble } from '../../../words/breach'
import { useSeenName } from '../../composables/useSeenName'
import { useWiringWords } from '../../composables/useWiringWords'

/** Recording what is in a box: ends are chosen and joined; what that would bring about is told before it is kept. */
const props = defineProps<{ site: Site; place: PlaceId; fixed: boolean }>()
const emit = defineEmits<{ keep: [outcome: Outcome<Command[]>] }>()
const { t, speaker } = useWiringWords(() => props.site.settings.units)
const ends = computed(() => endsAt(props.site, props.place).filter((e) => e.seen.way !== 'terminal'))
const groups = computed(() =>
  [
    { name: t('boxes.loose'), ends: ends.value.filter((e) => e.splice === null) },
    { name: t('boxes.capped'), ends: ends.value.filter((e) => e.capped) },
    { name: t('boxes.joined'), ends: ends.value.filter((e) => e.splice !== null && !e.capped) },
  ].filter((g) => g.ends.length > 0),
)
const chosen = ref<readonly string[]>([])
const picked = computed(() => ends.value.filter((e) => chosen.value.includes(endKey(e.seen.end))))
watch(
  () => props.place,
  () => {
    chosen.value = []
  },
)
const toggle = (e: EndHere) => {
  const key = endKey(e.seen.end)
  chosen.value = chosen.value.includes(key) ? chosen.value.filter((k) => k !== key) : [...chosen.value, key]
}
const kind = ref<ConnectorKind>('unknown')
const KINDS = [
  'unknown',
  'gel_crimp_3',
  'nut_and_gel_tube',
  'gel_nut',
  'solder_heatshrink',
  'dry_nut',
  'bare_twist',
] as const
const wish = computed(() =>
  picked.value.length === 0
    ? null
    : joinCommands(
        props.site,
        props.place,
        picked.value.map((e) => e.seen.end),
        kind.value,
      ),
)
const troubles = computed(() =>
  wish.value?.ok && picked.value.length > 1 ? newTroubles(props.site, wish.value.value) : [],
)
function join(): void {
  if (wish.value) {
    emit('keep', wish.value)
    if (wish.value.ok) chosen.value = []
  }
}
function takeOut(): void {
  emit('keep', {
    ok: true,
    value: looseCommands(
      props.site,
      picked.value.map((e) => e.seen.end),
    ),
  })
  chosen.value = []
}
const seenName = useSeenName((key, params) => t(key, params ?? {}))
const nameOf = ({ seen }: EndHere) => seenName(seen, seen.way === 'leaves')
</script>

<template>
  <section class="sheet stack">
    <div class="row head">
      <h2>{{ t('boxes.record') }}</h2>
      <AppButton v-if="!fixed" look="plain" @click="emit('keep', { ok: true, value: newValveCommands(site, place) })">
        + {{ t('boxes.newValve') }}
      </AppButton>
    </div>
    <p class="quiet small">{{ t('boxes.recordHow') }}</p>
    <div v-for="g in groups" :key="g.name">
      <h3 class="quiet">{{ g.name }}</h3>
      <p class="chips">
        <AppButton
          v-for="e in g.ends"
          :key="endKey(e.seen.end)"
          look="bare"
          class="chip"
          :class="{ chosen: chosen.includes(endKey(e.seen.end)) }"
          :aria-pressed="chosen.includes(endKey(e.seen.end))"
          :disabled="fixed"
          @click="toggle(e)"
        >
          <CoreSwatch v-if="e.seen.way !== 'device' || e.seen.colour" :colour="e.seen.colour" :width="20" />
          <span v-else class="coil" aria-hidden="true" />
          {{ nameOf(e) }}
        </AppButton>
      </p>
    </div>
    <div v-if="picked.length > 0" class="act stack" aria-live="polite">
      <p v-for="r in troubles" :key="r.code" :class="r.weight === 'wrong' ? 'fault' : 'doubtful'">
        <StateMark :state="r.weight === 'wrong' ? 'fault' : 'doubtful'" silent />
        {{ t('boxes.would') }} {{ sayTrouble(r, speaker) }}
      </p>
      <p class="row">
        <strong>{{ t('boxes.chosen', { count: picked.length }) }}</strong>
        <PickOne
          v-if="picked.length > 1"
          v-model="kind"
          class="kind"
          :aria-label="t('boxes.kindOf', { joint: t('boxes.record') })"
          :options="KINDS.map((k) => ({ value: k, label: t(`connector.${k}`) }))"
        />
        <AppButton look="primary" @click="join">
          {{ picked.length === 1 ? t('boxes.cap') : t('boxes.join') }}
        </AppButton>
        <AppButton v-if="picked.some((e) => e.splice !== null)" @click="takeOut">
          {{ t('boxes.takeOut') }}
        </AppButton>
      </p>
    </div>
  </section>
</template>

<style scoped>
.stack {
  gap: 8px;
}
.head {
  justify-content: space-between;
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
.coil {
  width: 10px;
  height: 10px;
  border: 2px solid var(--ink);
  border-radius: 50%;
}
.small {
  font-size: 13px;
}
.kind {
  width: auto;
  min-height: 40px;
}
.act {
  position: sticky;
  bottom: 0;
  background: var(--sheet);
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
@media (max-width: 759px) {
  .chip {
    min-height: 48px;
    font-size: 16px;
    border-radius: 24px;
  }
  .small {
    font-size: 15px;
  }
  .act {
    bottom: 56px;
    padding-bottom: 8px;
  }
}
</style>
