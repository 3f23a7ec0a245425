import { laterWords } from '../lib/later-words'

/** Threads and Test are what a first load brings; every other page of a property waits for its words. */
const FIRST = /^\/p\/[^/]+(\/test(\/[^/]+)?)?\/?$/
let taken = false

export default defineNuxtRouteMiddleware(async (to) => {
  if (taken || !to.path.startsWith('/p/') || FIRST.test(to.path)) return
  useNuxtApp().$takeWords(await laterWords())
  taken = true
})
