import { testKind } from './kind'

/** The valve opened by hand, the master valve open: whether water flows. */
export const byHand = testKind({ kind: 'by_hand', on: 'coil', answer: 'flows', hunt: true, danger: 'water' })
