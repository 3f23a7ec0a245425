import { judge, judgeCabinet, stateOf, type Scene, type State } from '../../core/expect'
import { baselineOf, pastOfTest } from '../../core/history'
import { ohmsWithUnit } from '../../core/quantity'
import {
  isHuntTest,
  isOhms,
  optionOf,
  standingReadings,
  type CabinetTest,
  type Reading,
  type Job,
} from '../../core/record'
import { commonOf, getOrThrow, type End } from '../../core/site'
import { say, type Speaker } from '../../words'
import { sayVerdict } from '../../words/reading'
import { useProperty } from '../stores/property'

/** A check that is no part of the sweep proper: what was done, what it gave, and what that says. */
export interface CheckRow {
  readonly id: string
  readonly reading: Reading
  readonly what: string
  readonly value: string
  readonly state: State
  readonly says: string
}

/** The further readings of a job: station to station, to earth, volts, clicks, tester lamps. */
export function useCabinetChecks(
  jobId: () => string,
  job: () => Job | null,
  scene: () => Scene | null,
  speaker: () => Speaker,
) {
  const property = useProperty()
  const t = (code: string, params: Record<string, string | number> = {}) => say({ code, params }, speaker())
  /** What a hunt adds in the boxes is told in Diagnose. */
  const standing = computed(() =>
    standingReadings(property.facts!, jobId()).flatMap(({ id, reading }) =>
      isHuntTest(reading.test) ? [] : [{ id, reading, test: reading.test }],
    ),
  )
  const supply_V = computed(() => {
    const reading = standing.value.find((l) => l.reading.test.kind === 'supply')?.reading
    return reading?.value.kind === 'volt' ? reading.value.volt : null
  })
  const isSweep = (test: CabinetTest): boolean => {
    if (test.kind !== 'ohms' || !job()) return false
    const common = commonOf(property.site!, job()!.controller)
    const tags = [test.from, test.to].filter((e) => e.kind === 'terminal' && e.terminal === common)
    return tags.length === 1 && [test.from, test.to].every((e) => e.kind === 'terminal')
  }
  const tagOf = (end: End): string => {
    if (end.kind === 'earth') return t('check.earthTag')
    return end.kind === 'terminal'
      ? getOrThrow(getOrThrow(property.site!.controllers, end.controller).terminals, end.terminal).tag
      : end.kind
  }
  const whatOf = (test: CabinetTest): string => {
    if (test.kind === 'ohms') return t('check.from_to', { from: tagOf(test.from), to: tagOf(test.to) })
    return test.kind === 'supply' ? t('check.what.supply') : t(`check.what.${test.kind}`, { at: tagOf(test.at) })
  }
  const valueOf = ({ test, value, meter }: Reading): string => {
    switch (value.kind) {
      case 'ohm':
        return ohmsWithUnit(value.ohm)
      case 'open':
        return meter.openMark
      case 'volt':
        return `${value.volt} V`
      default:
        return t(`check.answer.${optionOf(test.kind, value).says}`)
    }
  }
  const rows = computed((): CheckRow[] =>
    standing.value
      .filter((l) => !isSweep(l.test))
      .map(({ id, reading, test }) => {
        const row = { id, reading, what: whatOf(test), value: valueOf(reading) }
        if (isOhms(reading)) {
          const { verdict } = judge(
            scene()!,
            reading.test,
            reading.value,
            reading.meter,
            baselineOf(
              scene()!,
              property.sceneAt,
              reading.test,
              reading.meter,
              pastOfTest(property.pastBefore(jobId()), reading.test),
            ),
          )
          return { ...row, state: stateOf(verdict.code), says: sayVerdict(verdict, reading.meter, speaker()) }
        }
        if (test.kind === 'ohms') throw new Error('useCabinetChecks: an ohms reading that is none')
        const { code, state } = judgeCabinet(test, reading.value, supply_V.value)
        return {
          ...row,
          state,
          says: t(`cabinet.${code}`, supply_V.value === null ? {} : { supply_V: supply_V.value }),
        }
      }),
  )
  return { rows, supply_V }
}
