<script setup lang="ts">
import { beginPathCommands, genericSystem, GENERIC_SYSTEMS, type GenericSystem } from '../../../core/path'
import { byTag, entries, pathPairs, tagAndName, type ControllerId } from '../../../core/site'
import { usePathPage } from '../../composables/usePath'

/** A path for a controller that has none: two screws, and the system that it speaks. */
const { site, t, keep, sentences } = usePathPage()
const route = useRoute()
const controllers = computed(() =>
  entries(site.value.controllers)
    .filter(([id]) => pathPairs(site.value, id).length === 0)
    .sort(([, a], [, b]) => byTag(a.tag, b.tag))
    .map(([value, c]) => ({ value, label: tagAndName(c) })),
)
const picked = ref<ControllerId | null>(null)
const controller = computed(() => picked.value ?? controllers.value[0]?.value ?? null)
const kind = ref<GenericSystem>('switched')
async function begin(): Promise<void> {
  const system = genericSystem(kind.value, t(`twoWire.kinds.${kind.value}`))
  const id = controller.value
  if (id === null || !(await keep({ ok: true, value: beginPathCommands(site.value, id, system) }))) return
  await navigateTo({ query: { controller: id, show: 'plan' } })
}
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('twoWire.begin') }}</h2>
    <p v-if="controller === null" class="row">
      {{ t('twoWire.noController') }}
      <NuxtLink class="button" :to="`/p/${String(route.params.id)}/controller`">
        {{ t('twoWire.toController') }}
      </NuxtLink>
    </p>
    <form v-else class="stack" novalidate @submit.prevent="begin">
      <p class="quiet">{{ t('twoWire.beginHow') }}</p>
      <PickOne
        :model-value="controller"
        :label="t('twoWire.controller')"
        :options="controllers"
        @update:model-value="picked = $event"
      />
      <PickRadio
        v-model="kind"
        :label="t('twoWire.tabs.system')"
        :options="GENERIC_SYSTEMS.map((value) => ({ value, label: t(`twoWire.kinds.${value}`) }))"
      />
      <ul v-if="sentences.length > 0" class="fault" role="alert">
        <li v-for="s in sentences" :key="s">{{ s }}</li>
      </ul>
      <div class="row">
        <AppButton type="submit" look="primary">{{ t('twoWire.beginDo') }}</AppButton>
      </div>
    </form>
  </section>
</template>
