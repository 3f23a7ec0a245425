<script setup lang="ts">
import { methodTimes, type Method } from '../../../core/cores'
import type { CoresWork } from '../../composables/useCores'
import { figureIn } from '../../lib/figures'

/** The ways of telling cores apart with the minutes that each takes here, the quickest first. */
const props = defineProps<{ work: CoresWork; cores: number; people: number }>()
const { t, write } = props.work
const [walk, people] = [ref('3'), ref(String(props.people))]
const times = computed(() =>
  methodTimes({
    cores: props.cores,
    walk_min: figureIn(walk.value, 0, 600) ?? 3,
    people: Math.max(1, Math.round(figureIn(people.value, 1, 20) ?? 1)),
  }),
)
const choose = (method: Method) => write({ kind: 'method', method })
</script>

<template>
  <div class="two">
    <div class="field">
      <label for="cores-walk">{{ t('cores.walk') }}</label>
      <TextField id="cores-walk" v-model="walk" inputmode="decimal" />
    </div>
    <div class="field">
      <label for="cores-people">{{ t('cores.people') }}</label>
      <TextField id="cores-people" v-model="people" inputmode="numeric" />
    </div>
  </div>
  <ul class="stack">
    <li v-for="(way, i) in times" :key="way.method">
      <AppButton
        class="way"
        :look="i === 0 ? 'primary' : undefined"
        :disabled="way.minutes === null"
        @click="choose(way.method)"
      >
        <span>
          <strong>{{ t(`cores.method.${way.method}`) }}</strong>
          <small>{{ t(`cores.methodHow.${way.method}`) }}</small>
        </span>
        <span class="takes">
          {{ way.minutes === null ? t('cores.notSo') : t('cores.minutes', { minutes: Math.round(way.minutes) }) }}
          <small>{{ t('cores.walks', way.walks) }}{{ i === 0 ? ` · ${t('cores.best')}` : '' }}</small>
        </span>
      </AppButton>
    </li>
  </ul>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: end;
}
.way {
  width: 100%;
  justify-content: space-between;
  text-align: left;
}
.way span {
  display: grid;
  gap: 2px;
}
.way small {
  font-weight: 400;
}
.takes {
  flex: none;
  text-align: right;
}
</style>
