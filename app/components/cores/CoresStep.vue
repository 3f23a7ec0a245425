<script setup lang="ts">
import type { SessionStep } from '../../../core/cores'
import { ohmsWithUnit } from '../../../core/quantity'
import type { CoreTried } from '../../../core/record'
import type { CoresWork } from '../../composables/useCores'

/** One step at one end: what to do large, the answer at the thumb. */
const props = defineProps<{ work: CoresWork; step: SessionStep; job: string; people: number; byVoice?: boolean }>()
const { t, coreName, session, stock, sorting, write, writeAll, stepTitle } = props.work
const count = computed(() => sorting.value!.cores)
const pair = ref<number[]>([])
const looks = ref('')
const bad = ref('')
watch(
  () => props.step,
  () => {
    pair.value = []
    bad.value = ''
  },
)

async function off(at: 'first' | 'second'): Promise<void> {
  const names = looks.value.split(',').map((name) => name.trim().slice(0, 40))
  const isEmpty = looks.value.trim() === ''
  bad.value =
    isEmpty || names.length === count.value ? '' : t('cores.looksBad', { found: names.length, count: count.value })
  if (bad.value) return
  await writeAll([...(isEmpty ? [] : [{ kind: 'looks', end: at, looks: names } as const]), { kind: 'off', end: at }])
  looks.value = ''
}
const tapPair = (end: number) => {
  pair.value = pair.value.includes(end) ? pair.value.filter((e) => e !== end) : [...pair.value, end].slice(-2)
}
const bare = (end: 'first' | 'second', touching: [number, number] | null) => write({ kind: 'bare', end, touching })
const hang = (tags: Extract<SessionStep, { do: 'hang' }>['tags']) =>
  writeAll(tags.map((tag): CoreTried => ({ kind: 'hung', ...tag })))
/** At which end it is done; of the choice of a way it is said of both. */
const at = computed(() => (props.step.do === 'method' ? 'first' : props.step.at))
const core = computed(() => ('core' in props.step ? props.step.core : 0))
const ends = computed(() => Array.from({ length: count.value }, (_, i) => i))
</script>

<template>
  <section class="sheet stack step" :aria-label="stepTitle(step)">
    <h2>{{ stepTitle(step) }}</h2>
    <MethodStep v-if="step.do === 'method'" :work="work" :cores="count" :people="people" />
    <form v-else-if="step.do === 'off'" class="stack" novalidate @submit.prevent="off(at)">
      <p>{{ t('cores.says.off', { low: 1, high: count }) }}</p>
      <p v-if="session!.helped" class="doubtful">
        {{ t('cores.knownHow', { count, core: coreName(step.at, count) }) }}
      </p>
      <div class="field">
        <label :for="`looks-${step.at}`">{{ t('cores.looks') }}</label>
        <TextField :id="`looks-${step.at}`" v-model="looks" :aria-describedby="`looks-${step.at}-how`" />
        <p :id="`looks-${step.at}-how`" class="how">{{ t('cores.looksHow') }}</p>
        <p v-if="bad" class="bad" role="alert">{{ bad }}</p>
      </div>
      <div class="row foot">
        <AppButton look="primary" type="submit">{{ t('cores.offDone') }}</AppButton>
      </div>
    </form>
    <template v-else-if="step.do === 'bare'">
      <p>{{ t('cores.says.bare') }}</p>
      <EndTaps :ends="ends" :taken="pair" :name="(e) => coreName(at, e)" :label="stepTitle(step)" @tap="tapPair" />
      <div class="row foot">
        <AppButton v-if="pair.length === 2" look="primary" @click="bare(at, [pair[0]!, pair[1]!])">
          {{ t('cores.theseTwo') }}
        </AppButton>
        <AppButton v-else look="primary" :disabled="pair.length === 1" @click="bare(at, null)">
          {{ t('cores.nothingRings') }}
        </AppButton>
      </div>
    </template>
    <template v-else-if="step.do === 'join'">
      <p>{{ t('cores.says.join') }}</p>
      <ul class="bundles">
        <li v-for="(group, i) in step.groups" :key="i">
          {{ group.map((e) => coreName(at, e)).join(' + ') }}
          <span v-if="group.length === 1" class="quiet">{{ t('cores.alone') }}</span>
        </li>
      </ul>
      <div class="row foot">
        <AppButton
          look="primary"
          @click="write({ kind: 'joined', walk: step.walk, groups: step.groups.map((g) => [...g]) })"
        >
          {{ t('cores.joined') }}
        </AppButton>
      </div>
    </template>
    <RingsStep
      v-else-if="step.do === 'see'"
      :key="`${step.walk}`"
      :work="work"
      :at="step.at"
      :walk="step.walk"
      :ends="step.ends"
      :draft="`${job}.${step.walk}`"
    />
    <template v-else-if="step.do === 'call'">
      <p>{{ t('cores.says.call', { core: coreName('first', step.core) }) }}</p>
      <div class="row foot">
        <AppButton look="primary" @click="write({ kind: 'called', core })">{{ t('cores.called') }}</AppButton>
      </div>
    </template>
    <template v-else-if="step.do === 'put'">
      <p>{{ t('cores.says.put', { core: coreName('first', step.core) }) }}</p>
      <div class="row foot">
        <AppButton look="primary" @click="write({ kind: 'got', core })">
          {{ byVoice ? t('cores.gotVoice') : t('cores.got') }}
        </AppButton>
      </div>
    </template>
    <template v-else-if="step.do === 'hear'">
      <p>{{ t('cores.says.hear') }}</p>
      <EndTaps
        :ends="ends"
        :taken="[]"
        :name="(e) => coreName('second', e)"
        :label="stepTitle(step)"
        @tap="(end) => write({ kind: 'heard', core, at: end })"
      />
      <div class="row foot">
        <AppButton @click="write({ kind: 'heard', core, at: null })">{{ t('cores.nowhere') }}</AppButton>
      </div>
    </template>
    <template v-else-if="step.do === 'hang'">
      <p>{{ t('cores.says.hang') }}</p>
      <div class="field">
        <label for="cores-stock">{{ t('cores.stock') }}</label>
        <TextField id="cores-stock" v-model="stock" aria-describedby="cores-stock-how" />
        <p id="cores-stock-how" class="how">{{ t('cores.stockHow') }}</p>
      </div>
      <ul class="bundles">
        <li v-for="tag in step.tags" :key="tag.core">
          {{ coreName('first', tag.core) }}
          <span class="figure">{{ ohmsWithUnit(tag.ohm) }}</span>
        </li>
      </ul>
      <div class="row foot">
        <AppButton look="primary" @click="hang(step.tags)">{{ t('cores.hung') }}</AppButton>
      </div>
    </template>
    <template v-else-if="step.do === 'read'">
      <p>{{ t('cores.says.read') }}</p>
      <OhmsStep :work="work" :ends="step.ends" />
    </template>
  </section>
</template>

<style scoped>
.step h2 {
  font-size: 22px;
  line-height: 1.25;
}
.bundles {
  display: grid;
  gap: 8px;
  font-size: 20px;
}
.bundles li {
  display: flex;
  gap: 12px;
  align-items: baseline;
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}
.bundles .quiet {
  font-size: 15px;
}
@media (max-width: 759px) {
  .step :deep(.foot .button) {
    min-height: 52px;
    flex: 1;
  }
}
</style>
