import { defineNitroPlugin } from 'nitropack/runtime'
import { DEFAULT_ACTOR } from '../db/actor'
import { attendSoon } from '../utils/attend'
import { database } from '../utils/database'

/** What was noted before the server ended is looked at when it begins. */
export default defineNitroPlugin(() => {
  attendSoon(database(), DEFAULT_ACTOR)
})
