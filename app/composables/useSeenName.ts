import type { Seen } from '../../core/splice'

/**
 * What an end is called in its box: cable and colour, or a device and its lead; `→ on` for a core that goes on from
 * here.
 */
export function useSeenName(
  t: (key: string, params?: Record<string, string>) => string,
): (seen: Seen, goesOn: boolean) => string {
  const port = ({ end }: Seen) =>
    end.kind !== 'port' ? '' : end.port.length === 1 ? t('boxes.lead', { port: end.port }) : end.port.replace('_', ' ')
  return (seen, goesOn) =>
    seen.way === 'device'
      ? `${seen.from} ${seen.colour ?? port(seen)}`
      : `${seen.from} ${seen.colour ?? t('boxes.unsaid')}${goesOn ? ` → ${t('boxes.onward')}` : ''}`
}
