/** Whether the browser’s time-zone database has a zone. */
export function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat(undefined, { timeZone: name })
    return true
  } catch {
    return false
  }
}
