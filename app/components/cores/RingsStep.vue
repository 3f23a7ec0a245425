<script setup lang="ts">
import { draftOf, keepDraft } from '../../lib/device'
import type { CoresWork } from '../../composables/useCores'
import type { EndOf } from '../../../core/cores'

/** Groups found by continuity: the meter’s lead on one end, those that ring with it tapped, and on to the next. */
const props = defineProps<{ work: CoresWork; at: EndOf; walk: number; ends: readonly number[]; draft: string }>()
const { t, coreName, write } = props.work

/** Groups as far as they are found; what is half done survives a reload. */
const groups = ref<number[][]>([])
const taken = ref<number[]>([])
onMounted(() => {
  try {
    const kept: unknown = JSON.parse(draftOf(props.draft) ?? '[]')
    if (Array.isArray(kept)) groups.value = kept.filter((g): g is number[] => Array.isArray(g))
  } catch {
    groups.value = []
  }
})
watch(groups, (now) => keepDraft(props.draft, JSON.stringify(now)))
const left = computed(() => props.ends.filter((e) => !groups.value.flat().includes(e)))
const lead = computed(() => left.value[0] ?? null)
const name = (end: number) => coreName(props.at, end)
const says = (group: readonly number[]) => group.map(name).join(' + ')

function tap(end: number): void {
  taken.value = taken.value.includes(end) ? taken.value.filter((e) => e !== end) : [...taken.value, end]
}
async function next(): Promise<void> {
  const all = [...groups.value, [lead.value!, ...taken.value]]
  groups.value = all
  taken.value = []
  if (all.flat().length < props.ends.length) return
  await write({ kind: 'seen', walk: props.walk, groups: all })
  keepDraft(props.draft, '')
}
function again(): void {
  groups.value = []
  taken.value = []
}
</script>

<template>
  <template v-if="lead !== null">
    <p>{{ t('cores.says.see', { lead: name(lead) }) }}</p>
    <EndTaps
      :ends="left.slice(1)"
      :taken="taken"
      :name="name"
      :label="t('cores.rings', { lead: name(lead) })"
      @tap="tap"
    />
    <p v-if="groups.length > 0" class="quiet">{{ t('cores.soFar') }} {{ groups.map(says).join('; ') }}</p>
    <div class="row foot">
      <AppButton look="primary" @click="next">
        {{ taken.length === 0 ? t('cores.ringsNone') : t('cores.rings', { lead: name(lead) }) }}
      </AppButton>
      <AppButton v-if="groups.length > 0" look="plain" @click="again">{{ t('cores.wrongTap') }}</AppButton>
    </div>
  </template>
</template>
