<script setup lang="ts">
import { type ControllerId, type Site } from '../../../core/site'
import { swapSteps, type SwapStep } from '../../../core/cabinet'
import { useWiringWords } from '../../composables/useWiringWords'

/**
 * Changing a controller one screw at a time. What is done is kept on this device, so that a closed page loses
 * nothing.
 */
const props = defineProps<{ site: Site; controller: ControllerId; property: string }>()
const emit = defineEmits<{ close: [] }>()
const { t } = useWiringWords(() => props.site.settings.units)
const steps = computed(() => swapSteps(props.site, props.controller))
const keyOf = (s: SwapStep) => (s.kind === 'move' ? `move ${s.terminal}` : s.code)
const at = computed(() => `field-thread swap ${props.property} ${props.controller}`)
const done = ref(new Set<string>())
onMounted(() => {
  try {
    done.value = new Set((JSON.parse(localStorage.getItem(at.value) ?? '[]') as unknown[]).map(String))
  } catch {
    done.value = new Set()
  }
})
function tick(step: SwapStep, on: boolean): void {
  const next = new Set(done.value)
  if (on) next.add(keyOf(step))
  else next.delete(keyOf(step))
  done.value = next
  try {
    localStorage.setItem(at.value, JSON.stringify([...next]))
  } catch {
    /* a device that keeps nothing still guides */
  }
}
function restart(): void {
  done.value = new Set()
  try {
    localStorage.removeItem(at.value)
  } catch {
    /* nothing was kept */
  }
}
const count = computed(() => steps.value.filter((s) => done.value.has(keyOf(s))).length)
const next = computed(() => steps.value.find((s) => !done.value.has(keyOf(s))))
const print = () => window.print()
</script>

<template>
  <section class="sheet stack">
    <div class="row head">
      <h2>{{ t('door.swap') }}</h2>
      <span class="row no-print">
        <span class="quiet">{{ t('door.step', { done: count, count: steps.length }) }}</span>
        <AppButton @click="print">{{ t('door.print') }}</AppButton>
        <AppButton @click="restart">{{ t('door.restart') }}</AppButton>
        <AppButton @click="emit('close')">{{ t('app.close') }}</AppButton>
      </span>
    </div>
    <p>{{ t('door.swapHow') }}</p>
    <ol class="steps">
      <li v-for="s in steps" :key="keyOf(s)" :class="{ next: s === next, done: done.has(keyOf(s)) }">
        <TickBox :model-value="done.has(keyOf(s))" @update:model-value="tick(s, $event)">
          <span v-if="s.kind === 'move'" class="move">
            <strong class="peg figure">{{ s.label || s.tag }}</strong>
            <CoreSwatch v-for="(c, i) in s.colours" :key="i" :colour="c" />
            <span>{{ s.from.map((f, i) => `${f} ${s.colours[i] ?? ''}`.trim()).join(', ') }}</span>
            <span class="quiet">{{ s.name }}</span>
          </span>
          <span v-else>{{ t(`swapStep.${s.code}`) }}</span>
        </TickBox>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.head {
  justify-content: space-between;
}
.steps li {
  border-bottom: 1px solid var(--rule);
}
.steps li.next {
  background: var(--copper-soft);
}
.steps li.done {
  color: var(--quiet);
}
.move {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 8px;
}
.peg {
  min-width: 44px;
  text-align: center;
  border: 2px solid currentcolor;
  border-radius: var(--corner);
  padding: 2px 4px;
}
</style>
