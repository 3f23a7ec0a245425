import type * as z from 'zod'
import type { Refusal } from '../../refusal'

/** What a fact is held against when it comes in. */
export interface FactContext {
  /** The property's revision now. */
  readonly revision: number
  readonly hasController: (id: string) => boolean
}

/**
 * A kind of fact: one file, and everything there is to say of it. Its name is the kind of its message and the key of
 * its words, its collection the key in the property's file; the database keeps all kinds in one table.
 */
export interface FactKindOf<K extends string, C extends string, S extends z.ZodType> {
  readonly kind: K
  readonly collection: C
  readonly schema: S
  /**
   * The kind of fact that one of this kind hangs on, and the field that holds its id; null where it stands by itself.
   */
  readonly owner: { readonly kind: 'visit' | 'job' | 'reading' | 'photo' | 'quote'; readonly field: string } | null
  /** Whether `misfit` asks for the site's controllers, which takes the site itself. */
  readonly needsSite: boolean
  /** What is wrong with a fact that its schema cannot see, or null. */
  readonly misfit: (fact: z.output<S>, context: FactContext) => Refusal | null
}

/** A kind with what most kinds share left out. */
export function factKind<K extends string, C extends string, S extends z.ZodType>(
  kind: Pick<FactKindOf<K, C, S>, 'kind' | 'collection' | 'schema'> & Partial<FactKindOf<K, C, S>>,
): FactKindOf<K, C, S> {
  return { owner: null, needsSite: false, misfit: () => null, ...kind }
}
