<script setup lang="ts">
import { byTag, entries, type ControllerId } from '../../../../core/site'
import { controllerRules, modulesOf } from '../../../../core/cabinet'
import { sayRefusal } from '../../../../words'
import { useWiringPage } from '../../../composables/useWiringPage'

/**
 * A controller as it hangs on the wall: its door, its modules, its points of connection, its sensor, and how to
 * change it.
 */
const { site, t, speaker, sentences, doing, fixed } = useWiringPage()
const route = useRoute()
const all = computed(() => entries(site.value.controllers).sort(([, a], [, b]) => byTag(a.tag, b.tag)))
const controller = computed(
  () =>
    (all.value.find(([id]) => id === route.query.controller)?.[0] ?? all.value[0]?.[0] ?? null) as ControllerId | null,
)
const rules = computed(() =>
  controller.value === null
    ? []
    : [...controllerRules(site.value, controller.value), ...modulesOf(site.value, controller.value).broken],
)
</script>

<template>
  <div class="stack">
    <div class="row top">
      <h1>{{ t('door.title') }}</h1>
      <nav v-if="all.length > 1" class="row" :aria-label="t('door.title')">
        <NuxtLink
          v-for="[id, c] in all"
          :key="id"
          class="button"
          :class="{ primary: id === controller }"
          :aria-current="id === controller ? 'true' : undefined"
          :to="{ query: { controller: id } }"
        >
          <span class="figure">{{ c.tag }}</span>
          {{ c.name === c.tag ? '' : c.name }}
        </NuxtLink>
      </nav>
    </div>
    <section v-if="controller === null" class="sheet stack">
      <p>{{ t('door.none') }}</p>
      <p>
        <NuxtLink class="button primary" :to="`/p/${String(route.params.id)}/plan`">{{ t('plan.begin') }}</NuxtLink>
      </p>
    </section>
    <template v-else>
      <p class="caution">{{ t('door.mainsCare') }}</p>
      <ul v-if="sentences.length > 0" class="sheet wrong" role="alert">
        <li v-for="s in sentences" :key="s">{{ s }}</li>
      </ul>
      <section v-if="rules.length > 0" class="sheet rules">
        <h2>{{ t('door.rules') }}</h2>
        <p v-for="(r, i) in rules" :key="i">
          <StateMark state="doubtful" />
          {{ sayRefusal(r, speaker) }}
        </p>
      </section>
      <CabinetDoor :key="`door ${controller}`" :site="site" :controller="controller" :fixed="fixed" @keep="doing" />
      <CabinetSequencers :key="`sequencers ${controller}`" :site="site" :controller="controller" :fixed="fixed" />
      <CabinetPoints :key="`Points ${controller}`" :site="site" :controller="controller" :fixed="fixed" @keep="doing" />
      <CabinetModules
        :key="`Modules ${controller}`"
        :site="site"
        :controller="controller"
        :fixed="fixed"
        @keep="doing"
      />
      <CabinetSensor :key="`Sensor ${controller}`" :site="site" :controller="controller" :fixed="fixed" @keep="doing" />
      <WorkHere :target="{ kind: 'controller', controller }" />
    </template>
  </div>
</template>

<style scoped>
.top {
  justify-content: space-between;
}
.wrong {
  color: var(--fault);
  font-weight: 600;
  border-left: 5px solid var(--fault);
}
.rules {
  display: grid;
  gap: 6px;
  border-left: 5px solid var(--doubtful);
}
</style>
