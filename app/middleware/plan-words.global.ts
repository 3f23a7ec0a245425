import { planWords } from '../lib/plan-words'

/** Threads and Test are what a first load brings; every other page of a property waits for the words of Plan. */
const FIRST = /^\/p\/[^/]+(\/test(\/[^/]+)?)?\/?$/
let taken = false

export default defineNuxtRouteMiddleware(async (to) => {
  if (taken || !to.path.startsWith('/p/') || FIRST.test(to.path)) return
  useNuxtApp().$takeWords(await planWords())
  taken = true
})
