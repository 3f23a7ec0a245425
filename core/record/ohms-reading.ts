import type { Reading } from './kinds/reading'
import type { OhmsTest, OhmsValue } from './tests'

/** A reading of ohms, in figures or open. */
export type OhmsReading = Reading & { readonly test: OhmsTest; readonly value: OhmsValue }
export const isOhms = (r: Reading): r is OhmsReading => r.test.kind === 'ohms'
