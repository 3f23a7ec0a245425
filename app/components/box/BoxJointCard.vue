<script setup lang="ts">
import { jointTicks, getOrThrow, type Command, type Site, type SpliceId, stationLabelled } from '../../../core/site'
import {
  connectorCommands,
  isMade,
  splitCommands,
  splitOf,
  wayCommandsOf,
  type BoxJoint,
  type ConnectorKind,
  type Seen,
  type Way,
} from '../../../core/splice'
import { makingOf, shipped } from '../../../core/procedure'
import type { Outcome } from '../../../core/refusal'
import { sayRefusal } from '../../../words'
import { dayText } from '../../composables/useSpeaker'
import { useSeenName } from '../../composables/useSeenName'
import { useWiringWords } from '../../composables/useWiringWords'

/** A joint as it is and as it could be made: its picture, its connectors, what was looked at when it was made. */
const props = defineProps<{ site: Site; joint: BoxJoint; fixed: boolean }>()
const emit = defineEmits<{ keep: [outcome: Outcome<Command[]>]; open: [splices: readonly SpliceId[]] }>()
const { t, speaker } = useWiringWords(() => props.site.settings.units)
const KINDS = [
  'gel_crimp_3',
  'nut_and_gel_tube',
  'gel_nut',
  'solder_heatshrink',
  'dry_nut',
  'bare_twist',
  'unknown',
] as const

const names = computed(() =>
  props.joint.devices
    .map((d) => {
      const r = getOrThrow(props.site.devices, d)
      return r.name || (r.tag ?? d)
    })
    .join(', '),
)
const station = computed(() => stationLabelled(props.site, props.joint.terminal ?? '')?.name ?? '')
const behind = computed(() => {
  if (props.joint.behind === null) return t('boxes.other')
  const { tag: decoder, output } = props.joint.behind
  return output === null ? t('boxes.behindCommon', { decoder }) : t('boxes.behindOutput', { decoder, output })
})
const title = computed(() =>
  props.joint.serves === 'common'
    ? t('boxes.common')
    : props.joint.terminal
      ? [props.joint.terminal, station.value || names.value].filter(Boolean).join(' · ')
      : [behind.value, names.value].filter(Boolean).join(' · '),
)
const seenName = useSeenName((key, params) => t(key, params ?? {}))
const label = (seen: Seen) => seenName(seen, seen.way === 'leaves' && props.joint.ends.some((o) => o.way === 'arrives'))
const says = computed(
  () =>
    `${title.value}: ${props.joint.holds
      .map(
        (h) =>
          `${
            h.record.ends.length > 0
              ? props.joint.ends
                  .filter((s) => h.record.ends.some((e) => JSON.stringify(e) === JSON.stringify(s.end)))
                  .map(label)
                  .join(', ')
              : ''
          } (${t(`connector.${h.record.connector}`)})`,
      )
      .join('; ')}`,
)

const signature = (kinds: readonly ConnectorKind[]) => [...kinds].sort().join()
const now = computed(() => signature(props.joint.holds.map((h) => h.record.connector)))
const split = computed(() => (props.joint.ends.length > 3 ? splitOf(props.site, props.joint) : null))
function wayText(way: Way): string {
  const counts = new Map<ConnectorKind, number>()
  for (const m of way.plan.made) counts.set(m.connector.kind, (counts.get(m.connector.kind) ?? 0) + 1)
  const kinds = [...counts]
    .map(([k, n]) => (way.way === 'one' ? t(`connector.${k}`) : `${n} × ${t(`connector.${k}`)}`))
    .join(' + ')
  return t(`boxes.way.${way.way}`, { kinds, count: way.plan.jumpers }, way.plan.jumpers)
}
const isNow = (way: Way) => signature(way.plan.made.map((m) => m.connector.kind)) === now.value
const changeKind = (splice: SpliceId, kind: ConnectorKind) => emit('keep', connectorCommands(props.site, splice, kind))
/** What there is to do on a connector: one that was begun to be made is made, one that is made is remade. */
const workOn = ({ splice, record }: BoxJoint['holds'][number]) => {
  const isBegun = record.ticks.length > 0 && record.ticks.length < jointTicks.length
  return isMade(record) && !isBegun ? shipped('remake') : makingOf(props.site, { kind: 'joint', splice })
}
const strip = (kind: ConnectorKind, mm: number | null) =>
  kind === 'gel_crimp_3' ? t('strip.gel_crimp_3') : mm === null ? t('strip.none') : t('strip.other', { mm })
const misfitText = ({ misfit, record }: BoxJoint['holds'][number]) =>
  misfit === null
    ? ''
    : sayRefusal(
        {
          code: `connector_${misfit.code}`,
          path: [],
          params: { connector: record.connector, is: Math.round(misfit.is * 100) / 100, limit: misfit.limit },
        },
        speaker.value,
      )
/** A joint that was made and holds is left in peace. */
const settled = computed(() =>
  props.joint.holds.every((h) => isMade(h.record) && h.misfit === null && h.record.connector !== 'unknown'),
)
const others = computed(() => props.joint.ways.filter((w) => !isNow(w)))
</script>

<template>
  <article class="sheet joint stack" :class="{ bad: joint.holds.some((h) => h.misfit !== null) }">
    <header class="row head">
      <h3>{{ title }}</h3>
      <AppButton
        v-if="!fixed"
        look="plain"
        @click="
          emit(
            'open',
            joint.holds.map((h) => h.splice),
          )
        "
      >
        {{ t('boxes.open_joint') }}
      </AppButton>
    </header>
    <JointPicture :joint="joint" :label="label" :says="says" />
    <div v-for="hold in joint.holds" :key="hold.splice" class="hold">
      <p class="row">
        <PickOne
          class="kind"
          :model-value="hold.record.connector"
          :disabled="fixed"
          :aria-label="t('boxes.kindOf', { joint: title })"
          :options="KINDS.map((k) => ({ value: k, label: t(`connector.${k}`) }))"
          @update:model-value="changeKind(hold.splice, $event)"
        />
        <span class="quiet">{{ strip(hold.record.connector, hold.strip_mm) }}</span>
      </p>
      <p v-if="hold.misfit" class="fault">{{ misfitText(hold) }}</p>
      <p v-else-if="hold.holdPoint !== 'none' && hold.record.ticks.length < 4" class="quiet small">
        {{ t(`holdPoint.${hold.holdPoint}`) }}
      </p>
      <p v-if="isMade(hold.record)" class="row ticks">
        <span v-for="k in jointTicks.filter((k) => hold.record.ticks.includes(k))" :key="k" class="fits row">
          <StateMark state="fits" silent />
          {{ t(`tick.${k === 'squeezed' && hold.record.connector !== 'gel_crimp_3' ? 'twisted' : k}`) }}
        </span>
        <span v-if="hold.record.made" class="quiet small">
          {{ t('boxes.made', { day: dayText(hold.record.made.value) }) }}
        </span>
      </p>
      <WorkButton v-if="!fixed" :target="{ kind: 'joint', splice: hold.splice }" :procedure="workOn(hold)" />
    </div>
    <div v-if="!fixed && !settled && (others.length > 0 || split)" class="row ways">
      <span class="quiet small">{{ t('boxes.ways') }}</span>
      <AppButton
        v-for="(w, i) in others"
        :key="i"
        class="slim"
        @click="emit('keep', { ok: true, value: wayCommandsOf(site, joint, w) })"
      >
        {{ wayText(w) }}
      </AppButton>
      <AppButton
        v-if="split"
        class="slim"
        @click="emit('keep', { ok: true, value: splitCommands(site, joint, split) })"
      >
        {{ t('boxes.split', { count: split.connectors }) }}
      </AppButton>
    </div>
  </article>
</template>

<style scoped>
.joint {
  gap: 8px;
}
.joint.bad {
  border-left: 5px solid var(--fault);
}
.head {
  justify-content: space-between;
}
.head .button {
  min-height: 32px;
  padding-block: 2px;
}
.hold {
  display: grid;
  gap: 4px;
}
.kind {
  width: auto;
  min-height: 36px;
  max-width: 100%;
}
.small {
  font-size: 13px;
}
.ticks {
  gap: 4px 16px;
}
.slim {
  min-height: 34px;
  padding: 4px 12px;
  font-weight: 500;
}
@media (max-width: 759px) {
  .small {
    font-size: 15px;
  }
  .slim,
  .head .button {
    min-height: 48px;
  }
  .kind {
    min-height: 48px;
  }
}
</style>
