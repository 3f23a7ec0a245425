import type { Step, StepDoes, StepOption } from '../../core/record'

/** The ways in which a step of the company’s own can be answered, as they are picked. */
export const ANSWERS = ['tick', 'choice', 'text', 'photo', 'day', 'C', 'V', 'A', 'ohm', 'count', 'bar'] as const
/** Those that are read at a terminal. */
export const READ = ['common', 'earth'] as const
export type Answer = (typeof ANSWERS)[number] | (typeof READ)[number]

/** Which of them a step has; of what only ours ask for, the kind. */
export function answerOf({ does }: Pick<Step, 'does'>): Answer | 'settle' | 'measure' {
  if (does.kind === 'figure') return does.quantity
  if (does.kind === 'measure') return does.test === 'ohms' ? (does.to ?? 'common') : 'measure'
  return does.kind
}

/** What a step asks for, by what was picked. */
export function doesOf(answer: Answer): StepDoes {
  switch (answer) {
    case 'tick':
    case 'text':
    case 'photo':
    case 'day':
      return { kind: answer }
    case 'choice':
      return { kind: 'choice', options: [] }
    case 'common':
    case 'earth':
      return { kind: 'measure', test: 'ohms', to: answer }
    default:
      return { kind: 'figure', quantity: answer, low: null, high: null }
  }
}

const lines = (text: string) =>
  text
    .split('\n')
    .map((line) => line.trim().slice(0, 120))
    .filter((line) => line !== '')

/** Answers to choose from, a line each; their names go by their place. */
export const optionsOfLines = (passing: string, shutting: string): StepOption[] => [
  ...lines(passing).map((says, i) => ({ id: `yes_${i + 1}`, says, passes: true })),
  ...lines(shutting).map((says, i) => ({ id: `no_${i + 1}`, says, passes: false })),
]

/** The answers as lines again. */
export const linesOf = (options: readonly StepOption[], passes: boolean): string =>
  options
    .filter((o) => o.passes === passes)
    .map((o) => o.says ?? '')
    .join('\n')
