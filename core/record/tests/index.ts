import { sameJson } from '../../site/apply'
import { ANSWERS, type AnswerKind, type AnswerOption } from './answer'
import { byHand } from './by-hand'
import { click } from './click'
import { coilBeside } from './coil-beside'
import { coilOhms } from './coil-ohms'
import { coilVolts } from './coil-volts'
import { commonEarth } from './common-earth'
import { energise } from './energise'
import { leadEarth } from './lead-earth'
import { leadThrough } from './lead-through'
import { look } from './look'
import { loopCommon } from './loop-common'
import { loopLead } from './loop-lead'
import { ohms } from './ohms'
import { remake } from './remake'
import { supply } from './supply'
import { swapTest } from './swap-test'
import { testerCoil } from './tester-coil'
import { testerPower } from './tester-power'
import { tone } from './tone'
import { volts } from './volts'
import type { ReadingValue } from './value'
import { water } from './water'
import type { On, TestKindOf, Written } from './kind'

/**
 * Every kind of test, in the order in which they are offered. A new one is a file beside these, a line here, its words,
 * and what it would show: in the engine and, apart from it, in the simulated property.
 */
const TESTS = {
  ohms,
  supply,
  volts,
  click,
  tester_coil: testerCoil,
  tester_power: testerPower,
  water,
  swap_test: swapTest,
  tone,
  coil_volts: coilVolts,
  coil_beside: coilBeside,
  coil_ohms: coilOhms,
  loop_lead: loopLead,
  loop_common: loopCommon,
  lead_earth: leadEarth,
  lead_through: leadThrough,
  common_earth: commonEarth,
  energise,
  by_hand: byHand,
  look,
  remake,
} as const

type Tests = typeof TESTS
export type FieldTestKind = keyof Tests
export type TestOf<K extends FieldTestKind> = Written<K, Tests[K]['on']>
/** Every test that a reading can be of. */
export type FieldTest = { [K in FieldTestKind]: TestOf<K> }[FieldTestKind]
/** What can be tried to find a fault, besides: what waters, what a box shows, where a tone ends. */
export type HuntTest = { [K in FieldTestKind]: Tests[K]['hunt'] extends true ? TestOf<K> : never }[FieldTestKind]
/** What can be tried at the cabinet at any time. */
export type CabinetTest = Exclude<FieldTest, HuntTest>
export type TestKind = CabinetTest['kind']
export type OhmsTest = TestOf<'ohms'>
/** Tests that are made on the same: at a coil, on a joint. */
export type TestOn<O extends On> = { [K in FieldTestKind]: Tests[K]['on'] extends O ? TestOf<K> : never }[FieldTestKind]

type AnyTestKind = TestKindOf<FieldTestKind, On, keyof typeof ANSWERS, boolean>
export const testKinds = Object.keys(TESTS) as FieldTestKind[]
/** A kind by its name, its own types let go of: for whoever treats all kinds alike. */
export const testKindOf = (kind: FieldTestKind): AnyTestKind => TESTS[kind] as unknown as AnyTestKind
export const answerOf = (kind: FieldTestKind): AnswerKind => ANSWERS[TESTS[kind].answer]
/** The answer that was chosen, of a test that has some to choose from. */
export const optionOf = (kind: FieldTestKind, value: ReadingValue): AnswerOption => {
  const option = answerOf(kind).options.find((o) => sameJson(o.value, value))
  if (!option) throw new Error(`optionOf: ${kind} has no answer ${value.kind}`)
  return option
}
/** The keys of the words for yes and no of a test, or null. */
export const saysOf = (kind: FieldTestKind) => TESTS[kind].says ?? answerOf(kind).says

export const isHuntTest = (test: FieldTest): test is HuntTest => TESTS[test.kind].hunt
/** Whether a value is of the kind that a test gives. */
export const answers = (test: FieldTest, value: ReadingValue): boolean => answerOf(test.kind).accepts(value)

export type { AnswerOption } from './answer'
export type { OhmsValue, ReadingValue } from './value'
