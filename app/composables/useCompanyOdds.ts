import { agreedOdds } from '../lib/failures'
import { oddsHere } from '../lib/odds'

/** The odds that the company’s hunts go by; null where they are the usual ones. Asked for when a page begins. */
export function useCompanyOdds() {
  const odds = shallowRef(oddsHere())
  onMounted(async () => {
    const now = await agreedOdds()
    if (JSON.stringify(now) !== JSON.stringify(odds.value)) odds.value = now
  })
  return odds
}
