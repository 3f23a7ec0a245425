import { ref, watch, type Ref } from 'vue'
import type { PartReport } from '../../core/hunt'
import { partKey, type FieldTest, type ReadingValue, type WiringState } from '../../core/record'
import type { ControllerId, DeviceId, TerminalId } from '../../core/site'
import { readingsOf, type CheckEnd, type SymptomReading, type Told } from '../../core/symptom'
import type { Speaker } from '../../words'
import { sayPart } from '../../words/part'
import { useProperty } from '../stores/property'
import type { HuntReading } from './useHunt'
import type { HuntZone } from './useHuntZones'
import { useJobFacts } from './useJobFacts'

/**
 * What a crew writes down in a hunt: symptoms, readings in the state they were taken in, and what was mended. `keeping`
 * is true while several readings of one symptom are kept one after the other.
 */
export function useHuntAnswers(
  jobId: () => string,
  keeping: Ref<boolean>,
  {
    readings,
    failing,
  }: {
    readonly readings: Readonly<Ref<readonly HuntReading[]>>
    readonly failing: Readonly<Ref<ReadonlySet<WiringState>>>
  },
  known: {
    readonly controller: () => ControllerId
    readonly zones: Readonly<Ref<readonly HuntZone[]>>
    readonly waterTest: (terminal: TerminalId) => FieldTest
    readonly valvesOf: (terminal: TerminalId) => DeviceId[]
  },
  speaker: Readonly<Ref<Speaker>>,
) {
  const property = useProperty()
  const written = useJobFacts(jobId)

  async function keepAll(list: readonly SymptomReading[]): Promise<void> {
    keeping.value = true
    try {
      for (const { test, value, state } of list) await written.read(test, value, state ? { state } : {})
    } finally {
      keeping.value = false
    }
  }
  /** Which zones stay dry; and, where that is known, that the others water. */
  const dryTold = (dry: readonly TerminalId[], rest: boolean): Promise<void> =>
    keepAll(
      known.zones.value.flatMap((z): SymptomReading[] => {
        const isDry = dry.includes(z.terminal)
        const valves = isDry ? [] : known.valvesOf(z.terminal)
        return (isDry || rest) && z.dry !== isDry
          ? [{ test: known.waterTest(z.terminal), value: { kind: 'waters', valves } }]
          : []
      }),
    )
  const told = (symptom: Told): Promise<void> => keepAll(readingsOf(property.site!, known.controller(), symptom))
  /** What a look at valve, heads or water found is on record as mended. */
  async function found(zone: TerminalId, { valve }: CheckEnd, says: string): Promise<void> {
    const [device] = known.valvesOf(zone)
    await written.find({ where: valve && device ? { kind: 'valve', device } : null, says, belief: null, how: '' })
  }
  /** Whether a part is on record as mended, and nothing was read since: a second tap says nothing. */
  const justMended = ({ where }: PartReport): boolean => {
    const last = readings.value.reduce((at, r) => (r.reading.at > at ? r.reading.at : at), '')
    return Object.values(property.facts!.findings).some(
      (f) => f.job === jobId() && f.at > last && f.where !== null && partKey(f.where) === partKey(where),
    )
  }
  async function mended(part: PartReport | undefined, how = ''): Promise<void> {
    if (!part || justMended(part)) return
    const says = sayPart(part.where, property.site!, speaker.value)
    await written.find({ where: part.where, says, belief: part.p, how })
  }

  /**
   * It fails in these states only: tests are made in one of them, and the answer says in which it was. The choice stays
   * from reading to reading, until other states are said to fail.
   */
  const takenIn = ref<WiringState>('dry')
  watch(
    () => [...failing.value].join(),
    () => {
      const [first] = failing.value
      if (first) takenIn.value = first
    },
    { immediate: true },
  )
  const read = (test: FieldTest, value: ReadingValue) =>
    written.read(test, value, failing.value.size > 0 ? { state: takenIn.value } : {})
  return { dryTold, told, found, mended, strike: written.strike, end: written.close, takenIn, read }
}
