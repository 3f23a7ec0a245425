import { testKind } from './kind'

/** A joint looked at and tugged: whether it is sound. */
export const look = testKind({ kind: 'look', on: 'joint', answer: 'looked', hunt: true })
