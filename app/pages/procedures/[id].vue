<script setup lang="ts">
import { checkedCopy, movedStep, originalOf, shipped, withOwnStep, withoutStep } from '../../../core/procedure'
import { KIT, type Procedure } from '../../../core/record'
import type { Refusal } from '../../../core/refusal'
import { sayRefusal } from '../../../words'
import { sayTitle } from '../../../words/procedure'
import { useOwnWords } from '../../composables/useOwnWords'
import { plain } from '../../lib/device-db'
import { optionsOf } from '../../lib/options'
import { saveText } from '../../lib/save'

/**
 * A procedure of the company’s own, written: its words, its steps and their order. Every letter is kept on the device.
 */
const route = useRoute()
const id = computed(() => String(route.params.id))
const { t, speaker, procedures, shown, says, stateOf } = useOwnWords()
const loaded = ref(false)
onMounted(async () => {
  await procedures.load()
  loaded.value = true
})
const own = computed(() => procedures.byId(id.value))
const copy = computed(() => (own.value ? shown(own.value) : null))
const title = computed(() => (copy.value ? sayTitle(copy.value, speaker.value) : ''))
useHead({ title: () => `${title.value || t('own.title')} · ${t('app.name')}` })
const original = computed(() => (copy.value?.from ? shipped(copy.value.from) : null))

/** The step that is being changed. */
const open = ref<string | null>(null)
const [told, asking] = [ref(''), ref(false)]
const wrong = shallowRef<readonly Refusal[]>([])
const sentences = computed(() => [...new Set([...(own.value?.refusals ?? []), ...wrong.value])])

async function write(next: Procedure | null): Promise<void> {
  if (!next) return
  told.value = ''
  await procedures.write(next)
  if (wrong.value.length > 0) wrong.value = refusalsOf(next)
}
const refusalsOf = (procedure: Procedure): readonly Refusal[] => {
  const checked = checkedCopy(plain(procedure))
  return checked.ok ? [] : checked.refusals
}
async function keep(): Promise<void> {
  wrong.value = await procedures.keep(id.value)
  if (wrong.value.length > 0) return
  open.value = null
  if (own.value?.theirs === null) told.value = t(own.value.wants === 'keep' ? 'own.keptHere' : 'own.kept')
}
async function addAfter(at: number): Promise<void> {
  const made = withOwnStep(copy.value!, at)
  await write(made.copy)
  open.value = made.copy.steps[made.at]!.id
}
async function leave(how: 'drop' | 'remove'): Promise<void> {
  asking.value = false
  wrong.value = []
  await procedures[how](id.value)
  if (!own.value || own.value.wants === 'remove') await navigateTo('/procedures')
}
const save = () => saveText(`${id.value}.json`, `${JSON.stringify(copy.value, null, 2)}\n`, 'application/json')
</script>

<template>
  <PlainPage>
    <p>
      <NuxtLink to="/procedures">{{ t('own.back') }}</NuxtLink>
    </p>
    <p v-if="!copy" class="sheet">{{ loaded ? t('own.unknown') : t('app.loading') }}</p>
    <template v-else>
      <div>
        <h1>{{ title }}</h1>
        <p class="quiet">
          {{ original ? t('own.of', { title: sayTitle(original, speaker) }) : t('own.bare') }} · {{ t('own.on') }}
          {{ t(`workOn.${copy.on}`) }} · {{ stateOf(own!) }}
        </p>
      </div>
      <section v-if="own!.theirs !== null" class="sheet row" role="alert">
        <span>{{ stateOf(own!) }}.</span>
        <AppButton @click="procedures.insist(id)">{{ t('own.mine') }}</AppButton>
        <AppButton @click="leave('drop')">{{ t('own.theirs') }}</AppButton>
      </section>
      <section class="sheet stack head">
        <div class="field">
          <label for="own-title">{{ t('own.name') }}</label>
          <TextField
            id="own-title"
            :model-value="copy.title ?? ''"
            maxlength="80"
            @update:model-value="write({ ...copy, title: $event || undefined })"
          />
        </div>
        <PickSome
          :model-value="copy.kit"
          :options="optionsOf(KIT, (k) => t(`kitItem.${k}`))"
          :label="t('own.kit')"
          none="–"
          @update:model-value="write({ ...copy, kit: $event })"
        />
        <TickBox
          :model-value="copy.licensed"
          :disabled="original?.licensed"
          @update:model-value="write({ ...copy, licensed: $event })"
        >
          {{ t('own.licensed') }}
        </TickBox>
      </section>
      <ol class="steps">
        <li v-for="(step, i) in copy.steps" :key="step.id" class="sheet stack step">
          <div class="line">
            <span class="quiet figure">{{ i + 1 }}</span>
            <div class="says">
              <p>{{ step.says === undefined && !originalOf(copy, step.id) ? '…' : says(copy, step) }}</p>
              <p class="quiet small">
                {{ originalOf(copy, step.id) ? t('own.ours') : t('own.yours') }}
                <template v-if="step.hold">{{ ` · ${t('run.hold')}` }}</template>
                <template v-if="step.cautions.length > 0">
                  {{ ` · ${t('own.count', step.cautions.length)}` }}
                </template>
              </p>
            </div>
            <AppButton
              :aria-expanded="open === step.id"
              :aria-label="`${t(open === step.id ? 'own.fold' : 'own.edit')}: ${t('own.step', { n: i + 1 })}`"
              @click="open = open === step.id ? null : step.id"
            >
              {{ t(open === step.id ? 'own.fold' : 'own.edit') }}
            </AppButton>
          </div>
          <template v-if="open === step.id">
            <OwnStep :copy="copy" :at="i" :says="(s) => says(copy!, s)" @change="write" />
            <div class="row">
              <AppButton :disabled="!movedStep(copy, i, -1)" @click="write(movedStep(copy, i, -1))">
                {{ t('own.up') }}
              </AppButton>
              <AppButton :disabled="!movedStep(copy, i, 1)" @click="write(movedStep(copy, i, 1))">
                {{ t('own.down') }}
              </AppButton>
              <AppButton :disabled="!withoutStep(copy, i)" @click="write(withoutStep(copy, i))">
                {{ t('own.remove') }}
              </AppButton>
              <AppButton @click="addAfter(i)">{{ t('own.after') }}</AppButton>
            </div>
          </template>
        </li>
      </ol>
      <ul v-if="sentences.length > 0" class="sheet fault" role="alert">
        <li v-for="(r, i) in sentences" :key="i">{{ sayRefusal(r, speaker) }}</li>
      </ul>
      <p v-if="told" class="fits" role="status">{{ told }}</p>
      <div class="row foot">
        <AppButton look="primary" :disabled="own!.wants !== 'draft' || own!.theirs !== null" @click="keep">
          {{ t('own.keep') }}
        </AppButton>
        <AppButton @click="save">{{ t('own.saveFile') }}</AppButton>
        <AppButton v-if="own!.mine" look="plain" @click="leave('drop')">{{ t('own.drop') }}</AppButton>
        <AppButton v-if="own!.kept" look="plain" @click="asking = true">{{ t('own.takeOff') }}</AppButton>
      </div>
    </template>
    <AppDialog v-if="asking" v-model:visible="asking" :title="t('own.takeOff')">
      <div class="stack">
        <p>{{ t('own.sure', { title }) }}</p>
        <div class="row end">
          <AppButton look="plain" @click="asking = false">{{ t('app.cancel') }}</AppButton>
          <AppButton look="primary" @click="leave('remove')">{{ t('own.takeOff') }}</AppButton>
        </div>
      </div>
    </AppDialog>
  </PlainPage>
</template>

<style scoped>
.head {
  gap: 12px;
}
.steps {
  display: grid;
  gap: 6px;
}
.step {
  padding: 8px 16px;
}
.line {
  display: grid;
  grid-template-columns: 2ch 1fr auto;
  gap: 12px;
  align-items: center;
}
.small {
  font-size: 13px;
}
.foot {
  position: sticky;
  bottom: 0;
  padding: 12px 0;
  background: var(--paper);
  border-top: 1px solid var(--rule);
}
@media (max-width: 759px) {
  .small {
    font-size: 15px;
  }
}
</style>
