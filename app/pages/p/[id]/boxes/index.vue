<script setup lang="ts">
import { byTag, entries } from '../../../../../core/site'
import { boxJoints, brokenRules, connectorsForVan, isMade } from '../../../../../core/splice'
import { sayBreach } from '../../../../../words/breach'
import { useWiringPage } from '../../../../composables/useWiringPage'

/** Every box with how its joints stand, and everything in them that breaks a rule. */
const { site, t, speaker } = useWiringPage()
const route = useRoute()
const here = computed(() => `/p/${String(route.params.id)}/boxes`)
const rules = computed(() => brokenRules(site.value))
const van = computed(() => connectorsForVan(site.value, ...entries(site.value.places).map(([id]) => id)))
const boxes = computed(() =>
  entries(site.value.places)
    .sort(([, a], [, b]) => byTag(a.tag, b.tag))
    .map(([id, place]) => {
      const joints = boxJoints(site.value, id)
      const devices = Object.values(site.value.devices)
        .filter((d) => d.place === id && (d.kind === 'coil' || d.kind === 'relay'))
        .map((d) => d.tag ?? d.name)
      return {
        id,
        place,
        joints: joints.length,
        open: joints.filter((j) => !j.holds.every((h) => isMade(h.record))).length,
        troubles: rules.value.filter((r) => r.place === id),
        devices,
      }
    }),
)
</script>

<template>
  <div class="stack">
    <h1>{{ t('boxes.title') }}</h1>
    <section v-if="boxes.length === 0" class="sheet stack">
      <p>{{ t('boxes.none') }} {{ t('boxes.noneHow') }}</p>
      <p class="row">
        <NuxtLink class="button primary" :to="`/p/${String(route.params.id)}/plan`">{{ t('plan.begin') }}</NuxtLink>
        <NuxtLink class="button" :to="`/p/${String(route.params.id)}/plan/map`">{{ t('boxes.toMap') }}</NuxtLink>
      </p>
    </section>
    <ul v-else class="boxes">
      <li v-for="b in boxes" :key="b.id">
        <NuxtLink class="box sheet" :class="{ lost: b.place.found === 'lost' }" :to="`${here}/${b.id}`">
          <span class="tag figure">{{ b.place.tag }}</span>
          <span class="what">
            <strong>{{ b.place.name || t(`boxes.kind.${b.place.kind}`) }}</strong>
            <span class="quiet">{{ b.devices.join(', ') || '–' }}</span>
          </span>
          <span class="state">
            <span class="quiet">
              {{ t('boxes.joints', b.joints) }}{{ b.open > 0 ? `, ${t('boxes.open', { count: b.open })}` : '' }}
            </span>
            <span v-if="b.place.found !== 'found'" class="doubtful">{{ t(`boxes.found.${b.place.found}`) }}</span>
            <span
              v-if="b.troubles.length > 0"
              :class="b.troubles.some((r) => r.weight === 'wrong') ? 'fault' : 'doubtful'"
            >
              <StateMark :state="b.troubles.some((r) => r.weight === 'wrong') ? 'fault' : 'doubtful'" silent />
              {{ t('boxes.troubles', { count: b.troubles.length }) }}
            </span>
          </span>
        </NuxtLink>
      </li>
    </ul>
    <section v-if="van.length > 0" class="sheet stack rules">
      <h2>{{ t('boxes.van') }}</h2>
      <p class="row">
        <span v-for="v in van" :key="v.kind">
          <strong class="figure">{{ v.count }}</strong>
          × {{ t(`connector.${v.kind}`) }}
        </span>
      </p>
    </section>
    <section v-if="boxes.length > 0" class="sheet stack rules">
      <h2>{{ t('boxes.all') }}</h2>
      <p v-if="rules.length === 0" class="fits">
        <StateMark state="fits" silent />
        {{ t('boxes.nothing') }}
      </p>
      <ul class="stack">
        <li v-for="(r, i) in rules" :key="i">
          <StateMark :state="r.weight === 'wrong' ? 'fault' : 'doubtful'" />
          {{ ' ' }}
          <NuxtLink :to="`${here}/${r.place}`">{{ sayBreach(r, speaker) }}</NuxtLink>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.boxes {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(320px, 1fr));
  gap: 12px;
}
.box {
  display: grid;
  grid-template-columns: 56px 1fr auto;
  gap: 12px;
  align-items: center;
  color: inherit;
  text-decoration: none;
  padding: 12px;
  min-height: 68px;
  height: 100%;
}
.box:hover {
  border-color: var(--copper);
}
.box.lost {
  border-style: dashed;
}
.tag {
  font-size: 20px;
  font-weight: 700;
}
.what,
.state {
  display: grid;
  gap: 2px;
}
.state {
  justify-items: end;
  text-align: right;
  font-size: 13px;
}
.rules {
  gap: 8px;
}
.rules ul {
  gap: 6px;
}
.rules a {
  color: inherit;
}
@media (max-width: 759px) {
  .boxes {
    grid-template-columns: 1fr;
  }
  .state {
    font-size: 15px;
  }
}
</style>
