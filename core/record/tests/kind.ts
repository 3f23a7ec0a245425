import type { End } from '../../site/end'
import type { ControllerId, DeviceId, SpliceId } from '../../site/ids'
import type { AnswerName } from './answer'

/** What a test is made on, and the fields that say so. */
interface Made {
  /** Two points that the clips go to. */
  points: { from: End; to: End }
  controller: { controller: ControllerId }
  terminal: { at: TerminalEnd }
  /** A terminal whose lead is moved onto another. */
  moved: { at: TerminalEnd; onto: TerminalEnd }
  coil: { device: DeviceId }
  /** A coil, and the terminal that is on meanwhile. */
  beside: { device: DeviceId; live: TerminalEnd }
  joint: { splice: SpliceId }
}
type TerminalEnd = Extract<End, { kind: 'terminal' }>
export type On = keyof Made
/** A test of a kind, as it is written. */
export type Written<K extends string, O extends On> = { kind: K } & Made[O]

/** Where a clip goes at a coil: ends of the joint of its lead or its common, or what lies at the cabinet. */
export type Clip = 'lead port' | 'lead core' | 'lead middle' | 'common port' | 'common core' | 'screw' | 'C'

/** What must be so while a test is made. */
export interface Setup {
  /** Conductors off the terminals or on; `any` where it does not matter. */
  readonly leads: 'off' | 'on' | 'any'
  /** What is done at the test's terminal: switched on, a jumper from its lead to C, or its lead put to earth. */
  readonly set: 'on' | 'jumper' | 'earthed' | null
  /** The joint that is undone first: a coil's own of the lead or the common, or the joint the test is made on. */
  readonly undone: 'lead' | 'common' | 'joint' | null
}

/** A kind of test: one file, and everything there is to say of it but what it would show, which the circuit tells. */
export interface TestKindOf<K extends string, O extends On, A extends AnswerName, H extends boolean> {
  /** Its name in files, and the key of its words. */
  readonly kind: K
  readonly on: O
  readonly answer: A
  /** Only a hunt asks for it; the others are made at the cabinet at any time. */
  readonly hunt: H
  readonly setup: Setup
  /** What a crew must have with it; null for eyes, ears and hands. */
  readonly tool: 'meter' | 'tester' | 'tracer' | null
  /** Where the clips go at a coil; null elsewhere, and where none do. */
  readonly clips: readonly [Clip, Clip] | null
  /**
   * What can hurt somebody there, whatever the set-up: a rod that is driven into buried services, water under
   * pressure.
   */
  readonly danger: 'earth' | 'water' | 'on' | null
  /** The keys of the words for yes and no, where they are not those of its answer. */
  readonly says: readonly [yes: string, no: string] | null
}

type Told<K extends string, O extends On, A extends AnswerName, H extends boolean> = Pick<
  TestKindOf<K, O, A, H>,
  'kind' | 'on' | 'answer' | 'hunt'
> &
  Partial<Pick<TestKindOf<K, O, A, H>, 'tool' | 'clips' | 'danger' | 'says'>> & { readonly setup?: Partial<Setup> }

/** A kind with what most kinds share left out. */
export function testKind<K extends string, O extends On, A extends AnswerName, H extends boolean>(
  told: Told<K, O, A, H>,
): TestKindOf<K, O, A, H> {
  return {
    tool: null,
    clips: null,
    danger: null,
    says: null,
    ...told,
    setup: { leads: 'any', set: null, undone: null, ...told.setup },
  }
}
