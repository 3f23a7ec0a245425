import type * as z from 'zod'
import { readTraceCsv } from '../core/formats'
import { accepted, type Outcome } from '../core/refusal'
import { crossingOf, findsAlong } from '../core/trace'
import type { traceOutput } from './output'

type Out = z.infer<typeof traceOutput>

/** Where the line lies under every section, and what is met along the path. */
export function traceOf(csv: string): Outcome<Out> {
  const read = readTraceCsv(csv)
  if (!read.ok) return read
  const names = [...new Set(read.value.map((r) => r.section).filter((s) => s !== ''))]
  const sections = names.flatMap((name) => {
    const crossing = crossingOf(read.value.filter((r) => r.section === name))
    return crossing ? [[name, { across_m: { ...crossing.across_m }, cover_m: { ...crossing.cover_m } }] as const] : []
  })
  const finds = findsAlong(read.value.filter((r) => r.section === ''))
  return accepted({
    verb: 'trace',
    sections: Object.fromEntries(sections),
    finds: finds.map((f) => ({ ...f, along_m: { ...f.along_m } })),
  })
}

const metres = ({ low, mid, high }: { low: number; mid: number; high: number }) =>
  `${mid.toFixed(2)} m (${low.toFixed(2)} to ${high.toFixed(2)})`

/** The same as lines for a person; the shallow end of the cover first: there hand digging starts. */
export const traceLines = ({ sections, finds }: Out): string[] => [
  ...Object.entries(sections).map(
    ([name, { across_m, cover_m }]) =>
      `${name}: hand digging starts at ${cover_m.low.toFixed(2)} m; ` +
      `cover ${metres(cover_m)}, across ${metres(across_m)}`,
  ),
  ...finds.map((f) => `${metres(f.along_m)} ${f.kind} ${Math.round(f.p * 100)} %`),
]
