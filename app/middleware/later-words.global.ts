/** Threads and Test are what a first load brings; every other page of a property waits for its words. */
const FIRST = /^\/p\/[^/]+(\/test(\/[^/]+)?)?\/?$/

export default defineNuxtRouteMiddleware(async (to) => {
  if (to.path.startsWith('/p/') && !FIRST.test(to.path)) await useNuxtApp().$takeLaterWords()
})
