<script setup lang="ts">
import { Moon, Sun } from '@lucide/vue'
import { useI18n } from 'vue-i18n'
import { applyTheme, chosenTheme, type Theme } from '../../lib/theme'

const { t } = useI18n()
const theme = ref<Theme>(chosenTheme())
function toggle(): void {
  theme.value = theme.value === 'noon' ? 'dusk' : 'noon'
  applyTheme(theme.value, true)
}
</script>

<template>
  <AppButton
    look="plain"
    class="theme"
    :aria-label="t('app.theme')"
    :title="t(theme === 'noon' ? 'app.dusk' : 'app.noon')"
    @click="toggle"
  >
    <Moon v-if="theme === 'noon'" :size="18" />
    <Sun v-else :size="18" />
  </AppButton>
</template>

<style scoped>
.theme {
  color: var(--quiet);
  min-width: 40px;
}
@media (max-width: 759px) {
  .theme {
    min-width: 48px;
  }
}
</style>
