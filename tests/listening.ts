/** What a live line has said so far, and a way to wait for something on it. */
export interface Listening {
  readonly heard: Record<string, unknown>[]
  readonly until: (
    found: (what: Record<string, unknown>) => boolean,
    patience_ms?: number,
  ) => Promise<Record<string, unknown>>
  readonly end: () => void
}

/**
 * Listens to a property as a page does. Resolves when the line is open and has said how the property stands.
 * @param heardNow called with every word as it comes
 */
export async function listening(
  base: string,
  property: string,
  heardNow: (what: Record<string, unknown>) => void = () => undefined,
): Promise<Listening> {
  const stop = new AbortController()
  const reply = await fetch(`${base}/api/properties/${property}/live`, {
    headers: { accept: 'text/event-stream' },
    signal: stop.signal,
  })
  if (!reply.ok || !reply.body) throw new Error(`live: ${reply.status}`)
  const heard: Record<string, unknown>[] = []
  const waiting = new Set<() => void>()
  const read = async () => {
    const pieces = reply.body!.pipeThrough(new TextDecoderStream()) as unknown as AsyncIterable<string>
    let text = ''
    for await (const piece of pieces) {
      text += piece
      const events = text.split('\n\n')
      text = events.pop()!
      for (const event of events) {
        const data = /^data: (.*)$/m.exec(event)?.[1]
        if (data === undefined) continue
        const what = JSON.parse(data) as Record<string, unknown>
        heard.push(what)
        heardNow(what)
        for (const look of waiting) look()
      }
    }
  }
  void read().catch(() => undefined)
  const until: Listening['until'] = (found, patience_ms = 60_000) =>
    new Promise((resolve, reject) => {
      const look = () => {
        const what = heard.find(found)
        if (!what) return
        clearTimeout(timer)
        waiting.delete(look)
        resolve(what)
      }
      const timer = setTimeout(() => {
        waiting.delete(look)
        reject(new Error(`live: not heard; said so far: ${JSON.stringify(heard).slice(0, 600)}`))
      }, patience_ms)
      waiting.add(look)
      look()
    })
  await until((what) => what.kind === 'stands')
  return { heard, until, end: () => stop.abort() }
}
