import type { News, Presence } from '../../core/record'
import { hear, type Notice } from '../db/notices'

/** Somebody who is told what comes to one property; `news` null: something may have been missed. */
type Listener = (news: News | null) => void
/** Somebody who was heard of within this time is told of to whoever comes. */
const STILL_HERE_ms = 60_000
const AGAIN_AFTER_ms = 1000

const keyOf = (company: string, property: string) => `${company} ${property}`

/** What of this process listens, by property, and who is there. One connection to the database carries it all. */
export class Live {
  private readonly listeners = new Map<string, Set<Listener>>()
  private readonly here = new Map<string, Map<string, { who: Presence; at: string }>>()
  private hearing: Promise<() => void> | null = null

  constructor(private readonly url: string) {}

  /** Resolves when everything that comes from now on is told. @returns who is there, and the way to be told no more */
  async listen(
    company: string,
    property: string,
    listener: Listener,
  ): Promise<{ here: readonly { who: Presence; at: string }[]; leave: () => void }> {
    const key = keyOf(company, property)
    const listeners = this.listeners.get(key) ?? new Set()
    this.listeners.set(key, listeners.add(listener))
    const leave = () => {
      listeners.delete(listener)
      if (listeners.size === 0) this.listeners.delete(key)
    }
    try {
      await this.connected()
    } catch (error) {
      leave()
      throw error
    }
    const since = new Date(Date.now() - STILL_HERE_ms).toISOString()
    return { here: [...(this.here.get(key)?.values() ?? [])].filter(({ at }) => at > since), leave }
  }

  /** Hears nothing more. */
  async end(): Promise<void> {
    this.listeners.clear()
    const stop = await this.hearing?.catch(() => null)
    stop?.()
  }

  private connected(): Promise<() => void> {
    this.hearing ??= hear(
      this.url,
      (notice) => this.heard(notice),
      () => this.lost(),
    ).catch((error: unknown) => {
      this.hearing = null
      throw error
    })
    return this.hearing
  }

  private heard({ company, property, news }: Notice): void {
    const key = keyOf(company, property)
    if (news.kind === 'here') this.keepHere(key, news.who, news.at)
    for (const listener of this.listeners.get(key) ?? []) listener(news)
  }

  private keepHere(key: string, who: Presence, at: string): void {
    const people = this.here.get(key) ?? new Map<string, { who: Presence; at: string }>()
    if (who.doing === null) people.delete(who.device)
    else people.set(who.device, { who, at })
    const since = new Date(Date.now() - STILL_HERE_ms).toISOString()
    for (const [device, seen] of people) if (seen.at < since) people.delete(device)
    if (people.size === 0) this.here.delete(key)
    else this.here.set(key, people)
  }

  /** The database went away: once it is back, everybody looks what was missed. */
  private lost(): void {
    this.hearing = null
    const again = () => {
      if (this.listeners.size === 0) return
      this.connected().then(
        () => {
          for (const listeners of this.listeners.values()) for (const listener of listeners) listener(null)
        },
        () => setTimeout(again, AGAIN_AFTER_ms).unref(),
      )
    }
    setTimeout(again, AGAIN_AFTER_ms).unref()
  }
}

let opened: Live | null = null

/** The one of this process, which listens from when it is first asked for. */
export function live(): Live {
  opened ??= new Live(process.env.DATABASE_URL ?? '')
  return opened
}
