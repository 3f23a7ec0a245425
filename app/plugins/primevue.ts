import PrimeVue from 'primevue/config'

/** Every component of PrimeVue comes without its dress; ours is given in app/components/ui and the style sheets. */
export default defineNuxtPlugin((nuxt) => {
  nuxt.vueApp.use(PrimeVue, { unstyled: true })
})
