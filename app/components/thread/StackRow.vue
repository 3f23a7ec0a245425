<script setup lang="ts">
/** A thread in the stack: its screw or number, its line, what it reads. The way home is shown and not chosen. */
defineProps<{ tag: string; name: string; narrow: boolean; selected?: boolean; isHome?: boolean }>()
const emit = defineEmits<{ select: [] }>()
defineSlots<{ default: () => unknown; reading?: () => unknown; state?: () => unknown }>()
</script>

<template>
  <component
    :is="isHome ? 'div' : 'button'"
    :type="isHome ? undefined : 'button'"
    class="row"
    :class="{ narrow, selected, common: isHome }"
    :aria-pressed="isHome ? undefined : selected"
    @click="isHome ? undefined : emit('select')"
  >
    <span class="peg figure" :class="{ home: isHome }">{{ tag }}</span>
    <span class="label">{{ name }}</span>
    <span class="line"><slot /></span>
    <span class="reading figure"><slot name="reading" /></span>
    <span class="state"><slot name="state" /></span>
  </component>
</template>

<style scoped>
.row {
  --row: var(--paper);
  position: relative;
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr) 108px 36px;
  align-items: center;
  width: 100%;
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  cursor: pointer;
  border-radius: var(--corner);
  min-height: 30px;
}
button.row:hover {
  --row: var(--hover);
  background: var(--row);
}
.row.selected {
  --row: var(--copper-soft);
  background: var(--row);
}
.row.common {
  cursor: default;
}
.peg {
  justify-self: start;
  min-width: 34px;
  text-align: center;
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  background: var(--sheet);
  font-weight: 700;
  font-size: 14px;
  padding: 2px 4px;
}
.peg.home {
  background: var(--ink);
  color: var(--paper);
}
/* Where the line bears the name it is heard only. */
.label {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
.reading {
  text-align: right;
  font-size: 18px;
  font-weight: 700;
  padding-right: 4px;
}
.reading.quiet {
  font-weight: 400;
  font-size: 16px;
}
.reading .small {
  font-size: 14px;
  font-weight: 400;
  color: var(--quiet);
}
.state {
  justify-self: center;
}
.narrow.row {
  grid-template-columns: 44px minmax(0, 1fr) auto 24px;
  column-gap: 4px;
  grid-template-areas: 'peg label reading state' 'line line line line';
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
  border-radius: 0;
  min-height: 64px;
}
.narrow .peg {
  grid-area: peg;
}
.narrow .label {
  position: static;
  width: auto;
  height: auto;
  clip-path: none;
  display: block;
  grid-area: label;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.narrow .line {
  grid-area: line;
}
.narrow .reading {
  grid-area: reading;
}
.narrow .state {
  grid-area: state;
  justify-self: end;
}
</style>
