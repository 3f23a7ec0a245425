import { testKind } from './kind'

/** A joint cut out, looked into and made anew, and the thread tried again: whether it had been sound. */
export const remake = testKind({
  kind: 'remake',
  on: 'joint',
  answer: 'looked',
  hunt: true,
  setup: { undone: 'joint' },
})
