<script setup lang="ts">
import * as z from 'zod'
import { useI18n } from 'vue-i18n'
import { savedView, type Looking, type SavedView } from '../../../core/company'
import { fetchCompanyRecord, putCompanyRecord } from '../../lib/api'

/** Ways of looking at the list that the company keeps under names. */
const props = defineProps<{ looking: Looking }>()
const emit = defineEmits<{ look: [at: Looking] }>()
const { t } = useI18n()

const views = shallowRef<readonly SavedView[]>([])
let revision: number | null = null
const [naming, name, failed] = [ref(false), ref(''), ref(false)]

async function load(): Promise<void> {
  const reply = await fetchCompanyRecord('views', z.array(savedView))
  if (reply.kind !== 'ok') return
  views.value = reply.value.record ?? []
  revision = reply.value.revision
}
onMounted(load)
/** Keeps what a change makes of the views; of two people at once the second sees the first’s, and asks again. */
async function keep(now: SavedView[]): Promise<boolean> {
  const reply = revision === null ? null : await putCompanyRecord('views', revision, now)
  failed.value = reply?.kind !== 'ok'
  await load()
  return !failed.value
}
async function add(): Promise<void> {
  const view = { name: name.value.trim(), looking: props.looking }
  if (await keep([...views.value.filter((v) => v.name !== view.name), view])) naming.value = false
}
const drop = (view: SavedView) => keep(views.value.filter((v) => v !== view))
const same = (a: Looking, b: Looking) =>
  a.find === b.find && a.need === b.need && a.sort === b.sort && a.down === b.down
const isUsual = computed(() => same(props.looking, { find: '', need: null, sort: 'name', down: false }))
const current = computed(() => views.value.find((v) => same(v.looking, props.looking)) ?? null)
function ask(): void {
  name.value = props.looking.find
  failed.value = false
  naming.value = true
}
</script>

<template>
  <div v-if="views.length > 0 || !isUsual" class="row views">
    <span v-if="views.length > 0" id="views-label" class="quiet">{{ t('views.title') }}</span>
    <AppButton
      v-for="v in views"
      :key="v.name"
      :aria-pressed="v === current"
      :class="{ current: v === current }"
      @click="emit('look', v.looking)"
    >
      {{ v.name }}
    </AppButton>
    <AppButton v-if="current" look="plain" @click="drop(current)">
      {{ t('views.drop', { name: current.name }) }}
    </AppButton>
    <AppButton v-else-if="!isUsual" look="plain" @click="ask">{{ t('views.keep') }}</AppButton>
    <LazyAppDialog v-if="naming" v-model:visible="naming" :title="t('views.keep')">
      <form class="stack" @submit.prevent="add">
        <div class="field">
          <label for="view-name">{{ t('views.name') }}</label>
          <TextField id="view-name" v-model="name" maxlength="60" />
          <span class="how">{{ t('views.kept') }}</span>
        </div>
        <p v-if="failed" class="bad" role="alert">{{ t('views.notKept') }}</p>
        <div class="row end">
          <AppButton look="primary" type="submit" :disabled="name.trim() === ''">{{ t('views.keep') }}</AppButton>
        </div>
      </form>
    </LazyAppDialog>
  </div>
</template>

<style scoped>
.current {
  border-color: var(--copper);
  color: var(--copper);
}
</style>
