import type { CalendarDate } from '../../core/schedule'
import type { ControllerId } from '../../core/site'
import { fetchRevision, type Step } from '../lib/api'
import { useProperty } from '../stores/property'
import type { ScheduleSeen } from '../workers/schedule'
import { seenIn } from './useSchedule'
import { dayText, timeText } from './useSpeaker'

/** What a controller runs is in these. */
const BEARS = new Set(['programs', 'controllers'])
/** As many earlier ones as anybody looks through. */
const MOST = 12

/** What a controller ran before one of its changes, to be held beside what it runs now. */
export function useEarlierSchedule(
  controller: () => ControllerId | null,
  dates: () => { readonly from: CalendarDate; readonly days: number },
) {
  const property = useProperty()
  const options = computed(() =>
    (property.held?.steps ?? [])
      .filter((s: Step) => s.writes.some((w) => BEARS.has(String(w.path[0]))))
      .slice(0, MOST)
      .map((s) => ({ value: s.revision, at: `${dayText(s.at)} ${timeText(s.at)}` })),
  )
  /** The revision of the change before which it is looked at; 0 for none. */
  const chosen = ref(0)
  const seen = shallowRef<ScheduleSeen | null>(null)
  const isMissing = ref(false)
  let asked = 0
  watch([chosen, controller, dates], async () => {
    const own = ++asked
    const of = controller()
    seen.value = null
    isMissing.value = false
    if (chosen.value === 0 || of === null) return
    const reply = await fetchRevision(property.held!.id, chosen.value - 1)
    const then = reply.kind === 'ok' && of in reply.value.site.controllers ? reply.value.site : null
    const found = then && (await seenIn(then, of, dates()))
    if (own !== asked) return
    seen.value = found
    isMissing.value = reply.kind !== 'ok'
  })
  return { options, chosen, seen, isMissing }
}
