<script setup lang="ts">
import { freeName, readProcedure, SHIPPED, shipped } from '../../../core/procedure'
import { FAMILIES, WORK_ON, type Procedure } from '../../../core/record'
import type { Refusal } from '../../../core/refusal'
import { sayRefusal } from '../../../words'
import { sayTitle } from '../../../words/procedure'
import { useOwnWords } from '../../composables/useOwnWords'
import { optionsOf } from '../../lib/options'

/** The procedures that a company wrote for itself: begun from one of ours or from nothing, taken in from a file. */
const { t, speaker, procedures, shown, stateOf, isTaken, adapt } = useOwnWords()
useHead({ title: () => `${t('own.title')} · ${t('app.name')}` })
onMounted(() => procedures.load())
const all = computed(() =>
  procedures.own
    .filter((o) => o.wants !== 'remove')
    .map((own) => ({ own, procedure: shown(own), title: sayTitle(shown(own), speaker.value), state: stateOf(own) }))
    .sort((a, b) => a.title.localeCompare(b.title)),
)
const origin = ({ from }: Procedure) => {
  const original = from === null ? null : shipped(from)
  return original ? t('own.of', { title: sayTitle(original, speaker.value) }) : t('own.bare')
}

const beginning = ref(false)
const [from, on, family, title] = [ref(''), ref<Procedure['on']>('box'), ref<Procedure['family']>('boxes'), ref('')]
const origins = computed(() => [
  { value: '', label: t('own.nothing') },
  ...SHIPPED.map((p) => ({ value: p.id, label: sayTitle(p, speaker.value) })),
])
async function begin(): Promise<void> {
  const original = shipped(from.value)
  if (original) return adapt(original)
  if (title.value.trim() === '') return
  await procedures.load()
  const id = freeName(nameOf(title.value), isTaken)
  await procedures.write({
    id,
    title: title.value.trim(),
    from: null,
    family: family.value,
    on: on.value,
    suits: 'any',
    licensed: false,
    kit: [],
    steps: [{ id: 'own', cautions: [], hold: false, floats: false, if: [], when: [], does: { kind: 'tick' } }],
  })
  await navigateTo(`/procedures/${id}`)
}
/** A name for files and addresses from a title. */
function nameOf(text: string): string {
  const plain = text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^[^a-z]+|_+$/g, '')
  return plain === '' ? 'our_own' : plain
}

const broken = shallowRef<readonly Refusal[]>([])
/** A file comes in as a draft: it is looked at before everybody has it. Beside a draft of its name it gets another. */
async function bring(file: File): Promise<void> {
  const outcome = readProcedure(await file.text())
  broken.value = outcome.ok ? [] : outcome.refusals
  if (!outcome.ok) return
  await procedures.load()
  const { id: wanted } = outcome.value
  const id = procedures.byId(wanted)?.mine ? freeName(wanted, isTaken) : wanted
  await procedures.write({ ...outcome.value, id })
  await navigateTo(`/procedures/${id}`)
}
</script>

<template>
  <PlainPage>
    <div class="row title">
      <h1>{{ t('own.title') }}</h1>
      <span class="row">
        <AppButton look="primary" @click="beginning = true">{{ t('own.new') }}</AppButton>
        <FileButton accept=".json,application/json" :label="t('own.bring')" @chosen="bring" />
      </span>
    </div>
    <p class="quiet">{{ t('own.how') }}</p>
    <section v-if="broken.length > 0" class="sheet" role="alert">
      <h2>{{ t('own.broken') }}</h2>
      <ul class="fault">
        <li v-for="(r, i) in broken" :key="i">{{ sayRefusal(r, speaker) }}</li>
      </ul>
    </section>
    <p v-if="!procedures.reached" class="sheet row" role="alert">
      {{ t('own.unreachable') }}
      <AppButton @click="procedures.load()">{{ t('app.retry') }}</AppButton>
    </p>
    <p v-if="all.length === 0" class="sheet">{{ t('own.none') }}</p>
    <ul class="sheets">
      <li v-for="{ own, procedure, title: name, state } in all" :key="own.id">
        <NuxtLink :to="`/procedures/${own.id}`" class="sheet job">
          <span>
            <strong>{{ name }}</strong>
            <span class="quiet block">{{ origin(procedure) }} · {{ t('own.steps', procedure.steps.length) }}</span>
          </span>
          <span :class="state === t('own.state.kept') ? 'quiet' : 'doubtful'">{{ state }}</span>
        </NuxtLink>
      </li>
    </ul>
    <AppDialog v-if="beginning" v-model:visible="beginning" :title="t('own.new')">
      <form class="stack" @submit.prevent="begin">
        <PickOne v-model="from" :options="origins" :label="t('own.beginWith')" />
        <template v-if="from === ''">
          <div class="field">
            <label for="own-title">{{ t('own.name') }}</label>
            <TextField id="own-title" v-model="title" maxlength="80" />
          </div>
          <PickOne v-model="on" :options="optionsOf(WORK_ON, (o) => t(`workOn.${o}`))" :label="t('own.on')" />
          <PickOne
            v-model="family"
            :options="optionsOf(FAMILIES, (f) => t(`procedureFamily.${f}`))"
            :label="t('own.family')"
          />
        </template>
        <div class="row end">
          <AppButton look="plain" @click="beginning = false">{{ t('app.cancel') }}</AppButton>
          <AppButton look="primary" type="submit" :disabled="from === '' && title.trim() === ''">
            {{ t('own.begin') }}
          </AppButton>
        </div>
      </form>
    </AppDialog>
  </PlainPage>
</template>

<style scoped>
.title {
  justify-content: space-between;
}
.block {
  display: block;
}
</style>
