import * as z from 'zod'
import { refusal } from '../../refusal'
import { cableId, controllerId, placeId, words } from '../../site/ids'
import { celsius, factId, instant } from '../basics'
import { MOST_CORES } from '../core-ends'
import { meter } from '../meter'
import { procedure } from '../procedure/procedure'
import { slug } from '../procedure/step'
import { workTarget } from '../procedure/target'
import { factKind } from './kind'

/** What a visit can be spent on. */
export const JOB_KINDS = ['sweep', 'hunt', 'procedure', 'cores', 'trace'] as const
export type JobKind = (typeof JOB_KINDS)[number]

/** Which procedure a job follows, and on what. One that a company wrote comes along as it was when the job began. */
const following = z.strictObject({ id: slug, on: workTarget, own: procedure.optional() })
export type Following = z.infer<typeof following>

/**
 * The two ends of a cable whose cores are told apart: where they come out, how many there are, and which cable of the
 * record it is, where that is known.
 */
const sorting = z.strictObject({
  first: placeId,
  second: placeId,
  cores: z.int().min(2).max(MOST_CORES),
  cable: cableId.nullable().default(null),
})
export type Sorting = z.infer<typeof sorting>

/**
 * What the wand follows: a cable of the record from one of its places on, or one that is not on it; and the box that is
 * looked for.
 */
const tracing = z.strictObject({
  cable: cableId.nullable().default(null),
  from: placeId.nullable().default(null),
  box: placeId.nullable().default(null),
})
export type Tracing = z.infer<typeof tracing>

/** The field that a kind of job has, and no other. */
const OWN_FIELDS = { procedure: 'follows', cores: 'sorts', trace: 'traces' } as const

/**
 * A piece of work in a visit: what it is, at which controller, how warm it was and with which meter. A procedure on
 * what belongs to no controller, or to several, has the first of them.
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
    sorts: sorting.optional(),
    traces: tracing.optional(),
  })
  .superRefine((j, context) => {
    for (const [kind, field] of Object.entries(OWN_FIELDS))
      if ((j.kind === kind) !== (j[field as keyof typeof j] !== undefined))
        context.addIssue({ code: 'custom', path: [field], message: `what a job of the kind ${kind} has, and no other` })
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
