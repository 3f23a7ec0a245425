import * as z from 'zod'
import { refusal } from '../../refusal'
import { controllerId, words } from '../../site/ids'
import { celsius, factId, instant } from '../basics'
import { meter } from '../meter'
import { factKind } from './kind'

/** What a visit can be spent on. */
export const JOB_KINDS = ['sweep', 'hunt'] as const
export type JobKind = (typeof JOB_KINDS)[number]

/** A piece of work in a visit: what it is, at which controller, how warm it was and with which meter. */
export const job = z.strictObject({
  visit: factId,
  at: instant,
  author: words(80),
  kind: z.enum(JOB_KINDS),
  controller: controllerId,
  title: words(80).default(''),
  ground_C: celsius,
  coil_C: celsius.nullable().default(null),
  meter,
  /** The job whose readings this one goes on from. */
  takes: factId.optional(),
})
export type Job = z.infer<typeof job>

export const jobKind = factKind({
  kind: 'job',
  collection: 'jobs',
  schema: job,
  owner: { kind: 'visit', field: 'visit' },
  needsSite: true,
  misfit: ({ controller }, { hasController }) =>
    hasController(controller)
      ? null
      : refusal('points_nowhere', ['controller'], { id: controller, collection: 'controllers' }),
})
