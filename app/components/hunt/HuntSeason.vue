<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Circumstances } from '../../../core/hunt'
import { byTag, entries, tagAndName, type Site } from '../../../core/site'
import type { HuntOptions } from '../../lib/hunt-options'
import { withOrWithout } from '../../lib/options'

/** Where the crew stands, who helps, and what the season has brought: it makes some faults likelier. */
const options = defineModel<HuntOptions>({ required: true })
const props = defineProps<{ site: Site }>()
const { t } = useI18n()
const boxes = computed(() => entries(props.site.places).sort(([, a], [, b]) => byTag(a.tag, b.tag)))
function set(more: Partial<HuntOptions>): void {
  options.value = { ...options.value, ...more }
}
const had = (more: Partial<Circumstances>) => set({ circumstances: { ...options.value.circumstances, ...more } })
</script>

<template>
  <details class="sheet folds">
    <summary>
      <h2>{{ t('diagnose.season') }}</h2>
    </summary>
    <div class="stack season">
      <PickOne
        id="hunt-stand"
        :model-value="options.from"
        :label="t('diagnose.youStand')"
        :options="[
          { value: null, label: t('diagnose.atCabinet') },
          ...boxes.map(([id, p]) => ({ value: id, label: tagAndName(p) })),
        ]"
        @update:model-value="set({ from: $event })"
      />
      <TickBox :model-value="options.helper" @update:model-value="set({ helper: $event })">
        {{ t('diagnose.helper') }}
      </TickBox>
      <TickBox :model-value="options.circumstances.lightning" @update:model-value="had({ lightning: $event })">
        {{ t('diagnose.lightning') }}
      </TickBox>
      <TickBox :model-value="options.circumstances.othersWork" @update:model-value="had({ othersWork: $event })">
        {{ t('diagnose.othersWork') }}
      </TickBox>
      <fieldset v-for="what in ['digging', 'flooding', 'rodents'] as const" :key="what" class="row">
        <legend>{{ t(`diagnose.${what}`) }}</legend>
        <TickBox
          v-for="[id, p] in boxes"
          :key="id"
          class="chip"
          :model-value="options.circumstances[what].includes(id)"
          @update:model-value="had({ [what]: withOrWithout(options.circumstances[what], id, $event) })"
        >
          {{ p.tag }}
        </TickBox>
      </fieldset>
    </div>
  </details>
</template>

<style scoped>
.season {
  margin-top: 8px;
}
.season fieldset {
  gap: 4px 12px;
}
.chip {
  gap: 4px;
  min-height: 36px;
}
</style>
