import { oddsText } from './device'

/** The odds that hunts on this device go by: as last heard of the company, null where they are the usual ones. */
export function oddsHere(): unknown {
  try {
    return JSON.parse(oddsText() ?? 'null')
  } catch {
    return null
  }
}
