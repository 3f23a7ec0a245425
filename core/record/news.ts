import * as z from 'zod'
import { factKinds, type FactKind } from './kinds'
import { presence } from './presence'

const newFact = z.object({ kind: z.enum(factKinds as [FactKind, ...FactKind[]]), id: z.string(), fact: z.unknown() })

/** What comes to a property: facts, or one too large to be carried along; a change; somebody who is there. */
export const news = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('facts'), facts: z.array(newFact) }),
  z.object({ kind: z.literal('large') }),
  z.object({ kind: z.literal('revision'), revision: z.int(), by: z.string() }),
  z.object({ kind: z.literal('here'), who: presence, at: z.string() }),
])
export type News = z.infer<typeof news>
