<template>
  <li class="deed-row">
    <slot name="mark" />
    <span class="says"><slot /></span>
    <slot name="deeds" />
  </li>
</template>

<style>
.deed-row {
  display: flex;
  align-items: center;
  gap: 8px;
  flex-wrap: wrap;
}
.deed-row + .deed-row {
  margin-top: 8px;
}
.deed-row .says {
  flex: 1;
  min-width: 240px;
  display: grid;
}
</style>
