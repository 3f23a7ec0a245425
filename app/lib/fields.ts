/** What stands in the field an event comes from. */
export const valueOf = (event: Event): string => (event.target as HTMLInputElement).value
