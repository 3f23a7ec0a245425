import * as z from 'zod'
import { controllerId, words } from '../../site/ids'
import { factId, instant } from '../basics'
import { isAsked, pathTest, pathValue } from '../path-tests'
import { factKind } from './kind'

/**
 * What was read of a controller’s two-wire path while it was searched. `begun` puts what came before behind: the
 * search starts anew, as after a repair.
 */
export const pathTried = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('begun') }),
  z
    .strictObject({ kind: z.literal('read'), test: pathTest, value: pathValue })
    .refine(({ test, value }) => isAsked(test) === (typeof value === 'boolean'), {
      path: ['value'],
      error: 'yes or no where that is asked, else a figure',
    }),
  z.strictObject({ kind: z.literal('back'), reading: factId }),
])
export type PathTried = z.infer<typeof pathTried>

export const pathReading = z.strictObject({ at: instant, author: words(80), path: controllerId, tried: pathTried })
export type PathReading = z.infer<typeof pathReading>

export const pathReadingKind = factKind({
  kind: 'pathReading',
  collection: 'pathReadings',
  schema: pathReading,
})
