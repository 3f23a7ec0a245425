import { useI18n } from 'vue-i18n'
import { v7 } from 'uuid'
import {
  namingCommands,
  sessionOf,
  STOCK_ohm,
  trialsOf,
  USUAL_TAGS,
  type EndOf,
  type SessionStep,
  type TagKit,
} from '../../core/cores'
import { maximum_ohmPerM, parseOhms } from '../../core/quantity'
import type { CoreTried } from '../../core/record'
import { lookUp, stopPositions_m, tagAndName } from '../../core/site'
import { coresEn } from '../../words/cores-en'
import { authorName, keepStock, stockText } from '../lib/device'
import { today } from '../lib/today'
import { useProperty } from '../stores/property'
import { useSpeaker } from './useSpeaker'

let taken = false

/** The words of telling cores apart; they come with that place. */
export function useCoresWords() {
  if (!taken) useI18n({ useScope: 'global' }).mergeLocaleMessage('en', coresEn)
  taken = true
  const property = useProperty()
  return useSpeaker(() => property.site!.settings.units)
}

/** One cable that is being told apart, as both ends see it, and the doors by which they answer. */
export function useCores(jobId: () => string) {
  const property = useProperty()
  const { t, speaker } = useCoresWords()
  const job = computed(() => lookUp(property.facts!.jobs, jobId()) ?? null)
  const sorting = computed(() => job.value?.sorts ?? null)
  const trials = computed(() => trialsOf(property.facts!, jobId()))
  /** The resistors at hand, as they were written; empty where they are the usual ones. */
  const stock = ref(stockText())
  watch(stock, keepStock)
  const stock_ohm = computed(() => {
    const read = stock.value.split(/[,;]/).flatMap((text) => parseOhms(text.trim()) ?? [])
    return read.length > 0 ? read : STOCK_ohm
  })
  /** There and back along the cable as it is on record, with the meter of the job; what is not known is as usual. */
  const kit = computed((): TagKit => {
    const cable = sorting.value?.cable ? lookUp(property.site!.cables, sorting.value.cable) : undefined
    const gauge = cable?.gauge?.value
    const long_m = cable ? stopPositions_m(cable).at(-1)!.high : Infinity
    const wire_ohm = gauge ? 2 * long_m * maximum_ohmPerM(gauge) : Infinity
    const { accuracy_ratio, offset_ohm } = job.value?.meter ?? USUAL_TAGS
    const conditions = {
      tolerance_ratio: USUAL_TAGS.tolerance_ratio,
      wire_ohm: Math.min(wire_ohm, USUAL_TAGS.wire_ohm),
      accuracy_ratio,
      offset_ohm,
    }
    return { stock_ohm: stock_ohm.value, conditions }
  })
  const session = computed(() => (sorting.value ? sessionOf(sorting.value, trials.value, kit.value) : null))

  const placeName = (end: EndOf): string => {
    const place = sorting.value && lookUp(property.site!.places, sorting.value[end])
    return place ? tagAndName(place) : '?'
  }
  const placeTag = (end: EndOf): string =>
    (sorting.value && lookUp(property.site!.places, sorting.value[end])?.tag) || '?'
  /** A core as its flag has it, with what it looks like there. */
  function coreName(end: EndOf, i: number): string {
    if (i === sorting.value!.cores) return t('cores.known')
    const looks = session.value!.looks[end][i]
    return looks ? `${i + 1} ${looks}` : String(i + 1)
  }
  const cableName = computed(() => {
    const cable = sorting.value?.cable && lookUp(property.site!.cables, sorting.value.cable)
    return cable ? tagAndName(cable) : t('cores.unknownCable')
  })

  const write = (tried: CoreTried) =>
    property.record({
      kind: 'coreTrial',
      fact: { job: jobId(), at: new Date().toISOString(), author: authorName(), tried },
    })
  async function writeAll(all: readonly CoreTried[]): Promise<void> {
    for (const tried of all) await write(tried)
  }
  const takeBack = async (): Promise<void> => {
    const last = trials.value.at(-1)
    if (last) await write({ kind: 'back', trial: last.id })
  }

  /** What is found as a change of the record; null where the cable on record does not have these cores. */
  const naming = computed(() =>
    sorting.value && session.value
      ? namingCommands(property.site!, sorting.value, session.value, {
          today: today(),
          broken: t('cores.broken'),
          touching: t('cores.touching'),
          flag: (n) => t('cores.flag', { n }),
          id: v7,
        })
      : null,
  )
  const stepTitle = (step: SessionStep): string =>
    step.do === 'method'
      ? t('cores.methodTitle')
      : t(`cores.step.${step.do}`, {
          place: placeName(step.at),
          core: 'core' in step ? coreName('first', step.core) : '',
        })
  return {
    property,
    t,
    speaker,
    job,
    sorting,
    trials,
    session,
    stock,
    placeName,
    placeTag,
    coreName,
    cableName,
    write,
    writeAll,
    takeBack,
    naming,
    stepTitle,
  }
}
export type CoresWork = ReturnType<typeof useCores>
