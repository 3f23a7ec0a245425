import { parseArgs } from 'node:util'
import * as z from 'zod'
import { COMMON_METER, MOST_CORES } from '../core/record'
import { parseWith, refusal, refused, type Outcome } from '../core/refusal'

const figure = (low: number, high: number) =>
  z.string().transform((text, ctx) => {
    const value = Number(text)
    if (text.trim() !== '' && value >= low && value <= high) return value
    ctx.addIssue({ code: 'custom', message: `a number from ${low} to ${high}` })
    return z.NEVER
  })

const flags = z.strictObject({
  json: z.boolean().default(false),
  anew: z.boolean().default(false),
  on: z.string().max(4000).optional(),
  state: z.string().max(4000).optional(),
  hz: z.enum(['0', '50', '60']).optional(),
  phase: z.enum(['safe', 'optimistic']).default('optimistic'),
  mains: figure(0.5, 1.5).default(1),
  fault: z.array(z.string().max(200)).max(40).optional(),
  seed: figure(0, 4294967295).optional(),
  power: z.boolean().default(false),
  boxes: z.boolean().default(false),
  helper: z.boolean().default(false),
  arrestors: z.boolean().default(false),
  size: z.boolean().default(false),
  worst: z.boolean().default(false),
  convert: z.string().max(64).optional(),
  load: z.enum(['current', 'impedance']).default('current'),
  n: figure(2, MOST_CORES).optional(),
  walk: figure(0, 600).default(5),
  between: z.string().optional(),
  box: z.string().optional(),
  programs: z.string().optional(),
  prices: z.string().optional(),
  from: z.iso.date().optional(),
  days: figure(1, 3660).default(7),
  zone: z.string().max(60).optional(),
  mode: z.enum(['stack', 'overlap']).optional(),
  delay: figure(0, 3600).optional(),
  controller: z.string().optional(),
  ground: figure(-40, 90).optional(),
  coil: figure(-40, 90).optional(),
  'open-mark': z.enum(['OL', '1']).default(COMMON_METER.openMark),
  accuracy: figure(0, 0.2).default(COMMON_METER.accuracy_ratio),
  offset: figure(0, 20).default(COMMON_METER.offset_ohm),
  'lead-zero': figure(0, 20).default(COMMON_METER.leadZero_ohm),
  highest: figure(100, 1e9).default(COMMON_METER.highest_ohm),
})

export interface Arguments {
  readonly verb: string
  readonly files: readonly string[]
  readonly flags: z.infer<typeof flags>
}

/** The words after `thread`, checked. */
export function readArguments(argv: readonly string[]): Outcome<Arguments> {
  const text = { type: 'string' } as const
  try {
    const { positionals, values } = parseArgs({
      args: [...argv],
      allowPositionals: true,
      options: {
        json: { type: 'boolean' },
        anew: { type: 'boolean' },
        power: { type: 'boolean' },
        boxes: { type: 'boolean' },
        helper: { type: 'boolean' },
        arrestors: { type: 'boolean' },
        size: { type: 'boolean' },
        worst: { type: 'boolean' },
        convert: text,
        load: text,
        fault: { type: 'string', multiple: true },
        seed: text,
        on: text,
        state: text,
        hz: text,
        phase: text,
        mains: text,
        box: text,
        programs: text,
        prices: text,
        from: text,
        days: text,
        zone: text,
        mode: text,
        delay: text,
        between: text,
        n: text,
        walk: text,
        controller: text,
        ground: text,
        coil: text,
        'open-mark': text,
        accuracy: text,
        offset: text,
        'lead-zero': text,
        highest: text,
      },
    })
    const parsed = parseWith(flags, values)
    if (!parsed.ok) return refused(...parsed.refusals.map((r) => ({ ...r, path: [`--${r.path.join('.')}`] })))
    const [verb, ...files] = positionals
    return verb === undefined ? refused(refusal('usage')) : { ok: true, value: { verb, files, flags: parsed.value } }
  } catch (error) {
    return refused(refusal('bad_flag', [/'(-[\w-]*)/.exec((error as Error).message)?.[1] ?? '--']))
  }
}
