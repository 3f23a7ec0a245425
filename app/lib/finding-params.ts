/** The figures of a finding of a schedule, its time of day of a date as it is read. */
export const readableTimes = (params: Readonly<Record<string, string | number>>): Record<string, string | number> =>
  typeof params.at === 'string' ? { ...params, at: params.at.replace('T', ' ').replace(/:00$/, '') } : { ...params }
