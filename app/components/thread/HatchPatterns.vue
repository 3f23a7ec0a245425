<template>
  <svg width="0" height="0" aria-hidden="true" class="defs">
    <defs>
      <pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="6" height="6" class="hatch-ground" />
        <rect width="3" height="6" class="hatch-line" />
      </pattern>
    </defs>
  </svg>
</template>

<style scoped>
.defs {
  position: absolute;
}
.hatch-ground {
  fill: var(--hatch-ground);
}
.hatch-line {
  fill: var(--hatch);
}
</style>
