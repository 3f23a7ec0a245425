let coming: Promise<object> | null = null

/** The words that a first load does without, fetched once. */
export const laterWords = (): Promise<object> =>
  (coming ??= import('../../words/later-en').then(
    (m) => m.laterEn,
    (error: unknown) => {
      coming = null // without a signal: asked for again with the next page
      throw error
    },
  ))
