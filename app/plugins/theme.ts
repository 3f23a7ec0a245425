import { applyTheme, chosenTheme } from '../lib/theme'

export default defineNuxtPlugin(() => applyTheme(chosenTheme()))
