import * as z from 'zod'
import { refusal } from '../../refusal'
import { controllerId, words } from '../../site/ids'
import { celsius, instant } from '../basics'
import { meter } from '../meter'
import { factKind } from './kind'

/** Somebody at the property with a meter: one sweep of one controller. */
export const visit = z.strictObject({
  at: instant,
  author: words(80),
  controller: controllerId,
  title: words(80).default(''),
  ground_C: celsius,
  coil_C: celsius.nullable().default(null),
  meter,
})
export type Visit = z.infer<typeof visit>

export const visitKind = factKind({
  kind: 'visit',
  collection: 'visits',
  schema: visit,
  needsSite: true,
  misfit: ({ controller }, { hasController }) =>
    hasController(controller)
      ? null
      : refusal('points_nowhere', ['controller'], { id: controller, collection: 'controllers' }),
})
