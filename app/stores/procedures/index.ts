import { defineStore } from 'pinia'
import { brokenCopy, checkedCopy } from '../../../core/procedure'
import type { Procedure } from '../../../core/record'
import type { Refusal } from '../../../core/refusal'
import { deleteProcedure, putProcedure } from '../../lib/api'
import { plain } from '../../lib/device-db'
import { isWaiting, keepHere, proceduresHere, refreshed, standing, type OwnProcedure } from '../../lib/own-procedures'

/**
 * The procedures that the company wrote for itself: kept on this device, so that they are there without a signal, and
 * with the server. What is written goes to the device with every letter, and to the server once it is finished.
 */
export const useProcedures = defineStore('procedures', () => {
  const own = shallowRef<readonly OwnProcedure[]>([])
  const reached = ref(true)
  /** Whole by our rules: what can be followed. One whose original has a new caution since waits for it. */
  const usable = computed((): Procedure[] =>
    own.value.flatMap((o) => {
      const procedure = standing(o)
      return procedure && brokenCopy(procedure).length === 0 ? [procedure] : []
    }),
  )
  const byId = (id: string): OwnProcedure | null => own.value.find((o) => o.id === id) ?? null

  /** Puts one in place, here and on the device; null takes it off. */
  async function put(id: string, now: OwnProcedure | null): Promise<void> {
    const others = own.value.filter((o) => o.id !== id)
    own.value = now ? [...others, now].sort((a, b) => a.id.localeCompare(b.id)) : others
    await keepHere(id, now)
  }

  const show = (now: readonly OwnProcedure[]) => {
    own.value = now
  }
  let reading: Promise<void> | null = null
  /** What the device has: read once, before anything is written. */
  const readHere = (): Promise<void> => (reading ??= proceduresHere().then(show))

  /** What the device has, then what the server has, then what waits is sent. */
  async function load(): Promise<void> {
    await readHere()
    const now = await refreshed(() => own.value, show)
    reached.value = now !== null
    for (const one of now ?? []) await send(one)
  }

  /** Sends what is to be kept or removed; what was changed while it was on its way stays as it is now. */
  async function send(one: OwnProcedure): Promise<void> {
    if (!isWaiting(one)) return
    const reply =
      one.wants === 'remove' ? await deleteProcedure(one.id, one.base) : await putProcedure(one.base, one.mine!)
    const now = byId(one.id)
    if (!now) return
    if (reply.kind === 'ok') {
      const { revision } = reply.value
      if (one.wants === 'remove') return put(one.id, null)
      const isSame = now.mine === one.mine && now.wants === one.wants
      const rest = isSame ? { mine: null, wants: 'nothing' as const } : {}
      return put(one.id, { ...now, ...rest, kept: one.mine, base: revision, refusals: [] })
    }
    reached.value = reply.kind !== 'unreachable'
    if (reply.kind !== 'refused') return
    if (reply.status === 409) {
      await refreshed(() => own.value, show)
      return
    }
    return put(one.id, { ...now, wants: now.mine ? 'draft' : 'nothing', refusals: reply.refusals })
  }

  /** Writes a draft on. */
  async function write(mine: Procedure): Promise<void> {
    await readHere()
    const now = byId(mine.id) ?? { id: mine.id, kept: null, base: 0, theirs: null }
    return put(mine.id, { ...now, mine, wants: 'draft', refusals: [] })
  }
  /** Finishes a draft: kept and sent, or what is wrong with it. */
  async function keep(id: string): Promise<readonly Refusal[]> {
    const now = byId(id)
    if (!now?.mine) return []
    const checked = checkedCopy(plain(now.mine))
    if (!checked.ok) return checked.refusals
    const done: OwnProcedure = { ...now, mine: checked.value, wants: 'keep', refusals: [] }
    await put(id, done)
    await send(done)
    return byId(id)?.refusals ?? []
  }
  /** Lets go of what was changed here. */
  async function drop(id: string): Promise<void> {
    const now = byId(id)
    if (!now) return
    if (!now.kept) return put(id, null)
    return put(id, { ...now, base: now.theirs ?? now.base, mine: null, wants: 'nothing', theirs: null, refusals: [] })
  }
  /** Takes it off for everybody; a draft that nobody else has seen is let go. */
  async function remove(id: string): Promise<void> {
    const now = byId(id)
    if (!now?.kept) return put(id, null)
    const gone: OwnProcedure = { ...now, mine: null, wants: 'remove', base: now.theirs ?? now.base, theirs: null }
    await put(id, gone)
    await send(gone)
  }
  /** Of two that were changed at once, ours is to stand. */
  async function insist(id: string): Promise<void> {
    const now = byId(id)
    if (!now || now.theirs === null) return
    const ours: OwnProcedure = { ...now, base: now.theirs, theirs: null }
    await put(id, ours)
    await send(ours)
  }
  return { own, reached, usable, byId, load, write, keep, drop, remove, insist }
})
