import type * as z from 'zod'
import { readFileSync } from 'node:fs'
import { MOST_WHOLE_BYTES, readProperty } from '../core/formats'
import { gaugeText, printFigure, type Units } from '../core/quantity'
import { terminalAt } from '../core/site'
import { accepted, refusal, refused, type Outcome } from '../core/refusal'
import { sayRefusal, type Speaker } from '../words'
import { translateHere } from '../words/speaker'
import { coresLines, coresOf } from './cores'
import { readArguments, type Arguments } from './flags'
import { huntIn, huntLines } from './hunt'
import type { OUTPUTS } from './output'
import { material, sizeLines, sizes, stations, wiring, wiringLines } from './planning'
import { deck, solve, solveLines } from './power'
import { pathIn, pathLines } from './path'
import { procedureLines, proceduresOf } from './procedures'
import { quoteIn, quoteText } from './quote'
import { repairLines, repairOf } from './repair'
import { scheduleLines, scheduleOf } from './schedule'
import { sequencerLines, sequencersIn } from './sequencer'
import { simulate } from './simulate'
import { traceLines, traceOf } from './trace'
import { locate, locateLines } from './locate'
import { check, chosenControllers, expect, expectLines, judge, judgeLines, meterOf } from './verbs'

type Output = z.infer<(typeof OUTPUTS)[keyof typeof OUTPUTS]>

const speakerIn = (units: Units): Speaker => ({
  t: translateHere,
  figure: (name, value) => printFigure(name, value, units),
  gauge: gaugeText,
  wire: terminalAt,
})
const PLAIN = speakerIn({ length: 'm', temperature: 'C' })

function read(file: string): Outcome<string> {
  try {
    const bytes = readFileSync(file)
    return bytes.length > MOST_WHOLE_BYTES
      ? refused(refusal('file_too_large', [], { limit: MOST_WHOLE_BYTES / 1e6 }))
      : accepted(bytes.toString('utf8'))
  } catch {
    return refused(refusal('cannot_read', [], { file }))
  }
}

async function run({ verb, files, flags }: Arguments): Promise<Outcome<{ output: Output; speaker: Speaker }>> {
  if (verb === 'cores' && files.length <= 1) {
    const text = files[0] === undefined ? accepted(null) : read(files[0])
    const output = text.ok ? coresOf(text.value, flags) : text
    return output.ok ? accepted({ output: output.value, speaker: PLAIN }) : output
  }
  if (verb === 'trace' && files.length === 1) {
    const csv = read(files[0]!)
    const output = csv.ok ? traceOf(csv.value) : csv
    return output.ok ? accepted({ output: output.value, speaker: PLAIN }) : output
  }
  const wanted = {
    check: [1, 1],
    expect: [1, 1],
    solve: [1, 1],
    deck: [1, 1],
    size: [1, 1],
    material: [1, 1],
    stations: [1, 2],
    wiring: [1, 1],
    simulate: [1, 1],
    judge: [2, 2],
    hunt: [2, 2],
    procedures: [1, 1],
    locate: [1, 1],
    path: [1, 1],
    schedule: [1, 1],
    sequencer: [1, 1],
    repair: [2, 2],
    quote: [1, 1],
  }[verb]
  if (wanted === undefined || files.length > wanted[1]! || files.length === 0) return refused(refusal('usage'))
  if (files.length < wanted[0]!) return refused(refusal('no_readings'))
  const text = read(files[0]!)
  const property = text.ok ? readProperty(text.value) : text
  if (!property.ok) return property
  const speaker = speakerIn(property.value.site.settings.units)
  const done = (output: Outcome<Output>) => (output.ok ? accepted({ output: output.value, speaker }) : output)
  if (verb === 'check') return done(accepted(check(property.value, speaker)))
  if (verb === 'expect') return done(expect(property.value, flags, speaker))
  if (verb === 'solve') return done(solve(property.value, flags))
  if (verb === 'deck') return done(deck(property.value, flags))
  if (verb === 'size') return done(await sizes(property.value, flags, speaker))
  if (verb === 'simulate') {
    const chosen = chosenControllers(property.value.site, flags.controller)
    return chosen.ok ? done(simulate(property.value, flags, meterOf(flags), chosen.value)) : chosen
  }
  if (verb === 'procedures') return done(proceduresOf(property.value, flags, speaker))
  if (verb === 'path') return done(await pathIn(property.value, flags, speaker))
  if (verb === 'schedule') {
    const programs = flags.programs === undefined ? accepted(null) : read(flags.programs)
    return programs.ok ? done(scheduleOf(property.value, programs.value, flags, speaker)) : programs
  }
  const prices = flags.prices === undefined ? accepted(null) : read(flags.prices)
  if (!prices.ok) return prices
  if (verb === 'quote') return done(quoteIn(property.value, prices.value, flags, speaker))
  if (verb === 'sequencer') return done(sequencersIn(property.value, flags, speaker))
  if (verb === 'locate') return done(locate(property.value, flags.box))
  if (verb === 'wiring') return done(accepted(wiring(property.value)))
  if (verb === 'material') return done(material(property.value))
  if (files.length === 1) return done(stations(property.value, null))
  const csv = read(files[1]!)
  if (csv.ok && verb === 'stations') return done(stations(property.value, csv.value))
  if (csv.ok && verb === 'repair') return done(repairOf(property.value, csv.value, prices.value, flags, speaker))
  if (csv.ok && verb === 'hunt') return done(huntIn(property.value, csv.value, flags, speaker))
  return csv.ok ? done(judge(property.value, csv.value, flags, speaker)) : csv
}

/** Lines for a person; `--json` prints the whole. */
function lines(output: Output): string[] {
  switch (output.verb) {
    case 'check':
      return output.findings.length === 0
        ? ['Nothing found.']
        : output.findings.map((f) => `${f.weight.padEnd(6)} ${f.says}`)
    case 'expect':
      return expectLines(output)
    case 'simulate':
      return [output.csv.trimEnd()]
    case 'deck':
      return [output.deck.trimEnd()]
    case 'material':
      return [output.csv.trimEnd()]
    case 'procedures':
      return procedureLines(output)
    case 'cores':
      return coresLines(output)
    case 'trace':
      return traceLines(output)
    case 'path':
      return pathLines(output)
    case 'schedule':
      return scheduleLines(output)
    case 'sequencer':
      return sequencerLines(output)
    case 'quote':
      return quoteText(output)
    case 'repair':
      return repairLines(output)
    case 'locate':
      return locateLines(output)
    case 'stations':
      return [output.text.trimEnd()]
    case 'wiring':
      return wiringLines(output)
    case 'size':
      return sizeLines(output)
    case 'solve':
      return solveLines(output)
    case 'hunt':
      return huntLines(output)
    case 'judge':
      return judgeLines(output)
  }
}

/**
 * What the shell prints and how it ends: lines for a person or one object, or a sentence for each thing that is wrong.
 */
export async function answerTo(argv: readonly string[]): Promise<{ status: 0 | 2; out: string; err: string }> {
  const parsed = readArguments(argv)
  const result = parsed.ok ? await run(parsed.value) : parsed
  if (!result.ok) return { status: 2, out: '', err: `${result.refusals.map((r) => sayRefusal(r, PLAIN)).join('\n')}\n` }
  const { output } = result.value
  const text = parsed.ok && parsed.value.flags.json ? JSON.stringify(output) : lines(output).join('\n')
  return { status: 0, out: `${text}\n`, err: '' }
}
