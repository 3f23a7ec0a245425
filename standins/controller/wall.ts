const formats = new Map<string, Intl.DateTimeFormat>()

/** What a clock on the wall shows at a second of UTC, by the platform's own calendar. */
export function shown(zone: string, second: number): { date: string; time: string } {
  const format =
    formats.get(zone) ??
    new Intl.DateTimeFormat('en-CA', {
      timeZone: zone,
      hourCycle: 'h23',
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      second: '2-digit',
    })
  formats.set(zone, format)
  const part = Object.fromEntries(format.formatToParts(second * 1000).map((p) => [p.type, p.value]))
  return { date: `${part.year}-${part.month}-${part.day}`, time: `${part.hour}:${part.minute}:${part.second}` }
}

const DAY_s = 86_400
const HALF_DAY_s = 43_200
/** The second of UTC at which a clock shows a time of a date, or is nearest past it; its first coming. */
export function secondOf(zone: string, date: string, time: string): number {
  const wanted = `${date} ${time}`
  const text = (second: number) => {
    const now = shown(zone, second)
    return `${now.date} ${now.time}`
  }
  const guess = Date.parse(`${date}T${time}Z`) / 1000
  // No zone is further from UTC than this; its clock never goes back by more than hours.
  let [low, high] = [guess - DAY_s, guess + HALF_DAY_s + HALF_DAY_s]
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2)
    if (text(middle) < wanted) low = middle
    else high = middle
  }
  return high
}
