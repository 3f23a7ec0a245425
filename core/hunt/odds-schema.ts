import * as z from 'zod'
import { USUAL_ODDS, type OddsBasis } from './odds'

const share = z.number().min(0).max(1000)
const times = z.number().min(0.01).max(1000)

/** Weights by name, each the usual one where it is left out. */
const weights = <K extends string>(usual: Readonly<Record<K, number>>, one = share) =>
  z
    .strictObject(
      Object.fromEntries(
        (Object.entries(usual) as [K, number][]).map(([name, weight]) => [name, one.default(weight)]),
      ) as Record<K, z.ZodDefault<typeof share>>,
    )
    .prefault({} as never)

const { count, families, causes, connector, ages } = USUAL_ODDS

/** How often which trouble is met, as a file gives it; what it leaves out is as usual. */
export const oddsBasis: z.ZodType<OddsBasis> = z.strictObject({
  count: z
    .array(share)
    .min(2)
    .max(9)
    .default([...count]),
  families: weights(families),
  causes: z
    .strictObject({
      coil: weights(causes.coil),
      splice: weights(causes.splice),
      conductor: weights(causes.conductor),
      common: weights(causes.common),
      record: weights(causes.record),
      supply: weights(causes.supply),
      unlisted: weights(causes.unlisted),
    })
    .prefault({}),
  connector: weights(connector, times),
  old_years: z.number().min(1).max(100).default(USUAL_ODDS.old_years),
  ages: z.strictObject({ joint: weights(ages.joint, times), coil: weights(ages.coil, times) }).prefault({}),
  coilKinds: z.record(z.string(), times).default({}),
  suspect: times.default(USUAL_ODDS.suspect),
  digging: times.default(USUAL_ODDS.digging),
  flooding: times.default(USUAL_ODDS.flooding),
  lightning: times.default(USUAL_ODDS.lightning),
  othersWork: times.default(USUAL_ODDS.othersWork),
  rodents: times.default(USUAL_ODDS.rodents),
})
