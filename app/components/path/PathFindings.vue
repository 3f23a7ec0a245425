<script setup lang="ts">
import { brokenRegister } from '../../../core/path'
import { pathsOf } from '../../../core/site'
import { sayRefusal } from '../../../words'
import { usePathPage } from '../../composables/usePath'

/** What is wrong with the decoders of the property’s paths, each with the way to its register. */
const { site, t, speaker } = usePathPage()
const route = useRoute()
const wrong = computed(() =>
  pathsOf(site.value).flatMap((path) =>
    (path.system ? brokenRegister(site.value, { ...path, system: path.system }) : []).map((r) => ({
      says: sayRefusal(r, speaker.value),
      to: { path: `/p/${String(route.params.id)}/path`, query: { controller: path.controller, show: 'register' } },
    })),
  ),
)
</script>

<template>
  <ul class="findings">
    <li v-for="w in wrong" :key="w.says">
      <StateMark state="fault" silent />
      <span>
        {{ w.says }}
        <NuxtLink :prefetch="false" :to="w.to">{{ t('twoWire.tabs.register') }}</NuxtLink>
      </span>
    </li>
  </ul>
</template>

<style scoped>
.findings li {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
</style>
