import PrimeVue from 'primevue/config'

/**
 * Makes PrimeVue known to the application when the first of its components is used: it is no part of the first load.
 */
export function usePrimeVue(): void {
  getCurrentInstance()!.appContext.app.use(PrimeVue, { unstyled: true })
}
