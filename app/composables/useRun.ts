import { v7 } from 'uuid'
import {
  deedCommands,
  judgedAt,
  runOf,
  testOf,
  tickOf,
  unsettledOf,
  type Run,
  type RunStep,
  type StepHere,
} from '../../core/procedure'
import type { Reading, ReadingValue, StepAnswer } from '../../core/record'
import { authorName } from '../lib/device'
import { today } from '../lib/today'
import { useProperty } from '../stores/property'
import { useJobFacts } from './useJobFacts'
import { usePlan } from './usePlan'
import { useWorkWords } from './useWorkWords'

/** A piece of work as it is followed: where it stands, and the doors by which its steps are answered. */
export function useRun(jobId: () => string) {
  const property = useProperty()
  const { t, speaker } = useWorkWords(() => property.site!.settings.units)
  const { keep, sentences } = usePlan(() => speaker.value)
  const { read } = useJobFacts(jobId)
  const run = computed((): Run | null => runOf(property.site!, property.facts!, jobId()))
  const job = computed(() => property.facts!.jobs[jobId()]!)
  const against = computed(() => ({
    scene: property.sceneAt(job.value.ground_C, job.value.coil_C),
    sceneAt: property.sceneAt,
    past: property.pastBefore(jobId()),
  }))

  const write = (here: StepHere, answer: StepAnswer, heeded: boolean) =>
    property.record({
      kind: 'step',
      fact: { job: jobId(), at: new Date().toISOString(), author: authorName(), step: here.key, heeded, answer },
    })

  /**
   * Answers a step: what it writes into the record goes in as a batch, and where the record refuses that, nothing is
   * answered. A tick of a joint is kept with the joint alone.
   */
  async function answer(here: StepHere, given: StepAnswer, heeded = false): Promise<boolean> {
    const deed = deedCommands(property.site!, here, given, { today: today(), id: v7 })
    if (!(await keep(deed))) return false
    if (tickOf(here.step) === null || given.kind === 'refused') await write(here, given, heeded)
    return true
  }

  /** A reading that a step asked for: kept as a reading of this job, and the step answered with it. */
  async function measure(here: StepHere, value: ReadingValue, heeded: boolean): Promise<void> {
    const test = testOf(property.site!, here)
    if (!test) return
    const reading = await read(test, value)
    await answer(here, { kind: 'reading', reading }, heeded)
    if (here.step.deed === 'coil_new') await accept(reading, t('run.newCoil'))
  }

  /** Takes an answer back; what it wrote into the record stays, and is undone there. */
  async function takeBack(here: RunStep): Promise<void> {
    if (here.given) await write(here, { kind: 'undone' }, false)
    else await answer(here, { kind: 'undone' })
  }

  const accept = (reading: string, reason: string) =>
    property.record({
      kind: 'acceptance',
      fact: { reading, at: new Date().toISOString(), author: authorName(), reason },
    })
  const unsettled = computed(() => unsettledOf(against.value, property.facts!, jobId()))
  const judged = (reading: Reading) => judgedAt(against.value, reading)

  return { property, t, speaker, run, job, against, sentences, answer, measure, takeBack, accept, unsettled, judged }
}
