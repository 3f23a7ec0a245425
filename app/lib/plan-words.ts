let coming: Promise<object> | null = null

/** The words of Plan’s pages, fetched once. */
export const planWords = (): Promise<object> =>
  (coming ??= import('../../words/plan-page-en').then(
    (m) => m.planPageEn,
    (error: unknown) => {
      coming = null // without a signal: asked for again with the next page
      throw error
    },
  ))
