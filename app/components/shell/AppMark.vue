<template>
  <svg viewBox="0 0 26 16" width="26" height="16" aria-hidden="true">
    <path
      d="M2 13 C7 13 6 5 13 5 S19 13 24 13"
      fill="none"
      stroke="var(--copper)"
      stroke-width="2.4"
      stroke-linecap="round"
    />
    <circle cx="13" cy="5" r="3.4" fill="var(--ink)" />
  </svg>
</template>
