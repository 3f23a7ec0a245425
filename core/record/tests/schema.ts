import * as z from 'zod'
import { end } from '../../site/end'
import { controllerId, deviceId, spliceId } from '../../site/ids'
import { testKindOf, testKinds, type CabinetTest, type FieldTest, type FieldTestKind } from './index'
import type { On } from './kind'

const terminalEnd = end.options[2]

/** The fields of what a test is made on. */
const ON: Readonly<Record<On, z.ZodRawShape>> = {
  points: { from: end, to: end },
  controller: { controller: controllerId },
  terminal: { at: terminalEnd },
  moved: { at: terminalEnd, onto: terminalEnd },
  coil: { device: deviceId },
  beside: { device: deviceId, live: terminalEnd },
  joint: { splice: spliceId },
}

type Schemas = Parameters<typeof z.discriminatedUnion>[1]
const union = (kinds: readonly FieldTestKind[]) =>
  z.discriminatedUnion(
    'kind',
    kinds.map((kind) => z.strictObject({ kind: z.literal(kind), ...ON[testKindOf(kind).on] })) as unknown as Schemas,
  )
export const fieldTest = union(testKinds) as unknown as z.ZodType<FieldTest>
export const cabinetTest = union(
  testKinds.filter((kind) => !testKindOf(kind).hunt),
) as unknown as z.ZodType<CabinetTest>
