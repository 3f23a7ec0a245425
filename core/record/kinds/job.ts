import * as z from 'zod'
import { refusal } from '../../refusal'
import { controllerId, words } from '../../site/ids'
import { celsius, factId, instant } from '../basics'
import { meter } from '../meter'
import { procedure } from '../procedure/procedure'
import { slug } from '../procedure/step'
import { workTarget } from '../procedure/target'
import { factKind } from './kind'

/** What a visit can be spent on. */
export const JOB_KINDS = ['sweep', 'hunt', 'procedure'] as const
export type JobKind = (typeof JOB_KINDS)[number]

/** Which procedure a job follows, and on what. One that a company wrote comes along as it was when the job began. */
const following = z.strictObject({ id: slug, on: workTarget, own: procedure.optional() })
export type Following = z.infer<typeof following>

/**
 * A piece of work in a visit: what it is, at which controller, how warm it was and with which meter. A procedure on what
 * belongs to no controller, or to several, has the first of them.
 */
export const job = z
  .strictObject({
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
    follows: following.optional(),
  })
  .refine((j) => (j.kind === 'procedure') === (j.follows !== undefined), {
    path: ['follows'],
    error: 'the procedure of a job that follows one, and of no other',
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
