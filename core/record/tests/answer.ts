import { sameJson } from '../../site/apply'
import type { ReadingValue } from './value'

/** One of the answers that are chosen from: as it is written in files and by meters, and the key of its words. */
export interface AnswerOption {
  readonly written: string
  readonly says: string
  readonly value: ReadingValue
}

/** What tests can answer. */
export interface AnswerKind {
  /** The unit of a figure, or null. */
  readonly unit: 'Ω' | 'V' | 'm' | null
  /** What can be chosen from; empty where a figure or a list is given. */
  readonly options: readonly AnswerOption[]
  /** The keys of the words for yes and for no, where there are two ways that it can go. */
  readonly says: readonly [yes: string, no: string] | null
  readonly accepts: (value: ReadingValue) => boolean
}

/** An answer that is one of a few words; the first two are yes and no. */
function chosen(options: readonly AnswerOption[]): AnswerKind {
  const [yes, no] = options
  return {
    unit: null,
    options,
    says: [yes!.says, no!.says],
    accepts: (value) => options.some((o) => sameJson(o.value, value)),
  }
}
const lamp = (...lamps: readonly Extract<ReadingValue, { kind: 'lamp' }>['lamp'][]): AnswerOption[] =>
  lamps.map((lit) => ({ written: lit, says: `lamp_${lit}`, value: { kind: 'lamp', lamp: lit } }))
const figure = (unit: AnswerKind['unit'], kinds: readonly ReadingValue['kind'][]): AnswerKind => ({
  unit,
  options: [],
  says: null,
  accepts: ({ kind }) => kinds.includes(kind),
})

export const ANSWERS = {
  ohms: figure('Ω', ['ohm', 'open']),
  volts: figure('V', ['volt']),
  heard: chosen([
    { written: 'heard', says: 'heard', value: { kind: 'heard', heard: true } },
    { written: 'not heard', says: 'not_heard', value: { kind: 'heard', heard: false } },
  ]),
  flows: chosen([
    { written: 'flows', says: 'flows', value: { kind: 'flows', flows: true } },
    { written: 'dry', says: 'dry', value: { kind: 'flows', flows: false } },
  ]),
  looked: chosen([
    { written: 'sound', says: 'sound', value: { kind: 'looked', sound: true } },
    { written: 'bad', says: 'bad', value: { kind: 'looked', sound: false } },
  ]),
  coilLamps: { ...chosen(lamp('good', 'open', 'short')), says: null },
  powerLamp: chosen(lamp('lit', 'dark')),
  waters: { ...figure(null, ['waters']), says: ['waters', 'waters_not'] },
  tone: { ...figure('m', ['tone']), says: ['lost', 'through'] },
} as const satisfies Readonly<Record<string, AnswerKind>>
export type AnswerName = keyof typeof ANSWERS
