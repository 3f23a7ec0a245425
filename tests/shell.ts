import { answerTo } from '../cli/answer'

/** What the shell answers, without a process of its own. */
export const thread = (...args: readonly string[]) => answerTo(args)
