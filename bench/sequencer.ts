import {
  nextValves,
  nothingKnown,
  perhapsTurned,
  poweredTurns,
  turned,
  watered,
  type SequencerBelief,
} from '../core/sequencer'
import { chance } from '../standins'
import { drawnYear, minuteByMinute } from '../tests/drawn-year'

// Sequencers: drawn years of programs, hand starts and outages against a clock of minutes, and the odds of what comes
// next where somebody was there unseen.

const argument = (name: string, usual: number) => {
  const at = process.argv.indexOf(`--${name}`)
  return at < 0 ? usual : Number(process.argv[at + 1])
}
const [seed, cases] = [argument('seed', 1), argument('cases', 500)]
/** So many times a year somebody looks which valve waters. */
const LOOKS = 12
const BINS = 10

let [turns, differing, impossible, certain, certainWrong, lost] = [0, 0, 0, 0, 0, 0]
const said = Array.from({ length: BINS }, () => ({ count: 0, odds: 0, came: 0 }))
for (let n = 0; n < cases; n++) {
  const year = drawnYear(seed * 10_000 + n)
  const all = [...year.on, ...year.unseen.flatMap((u) => u.on)]
  const ours = poweredTurns(all, year.outages, year, year.last)
  const theirs = minuteByMinute(year)
  const same =
    ours.map((t) => `${(t.from_s - year.from_s) / 60} ${t.output} ${t.isHeld}`).join() ===
    theirs.map((t) => `${t.minute} ${t.output} ${t.isHeld}`).join()
  differing += Number(!same)
  turns += ours.length

  const random = chance(seed * 10_000 + n + 5_000_000)
  const valves = year.isFitted.map((isFitted, output) => (isFitted ? output : null))
  let belief: SequencerBelief = nothingKnown(valves, true)
  // Until somebody looks, one unknown makes every later turn as uncertain: only the first after it is counted.
  let isFirst = false
  const unseen = [...year.unseen].sort((a, b) => a.at_s - b.at_s)
  for (const turn of ours.filter((t) => !t.isHeld)) {
    while (unseen.length > 0 && unseen[0]!.at_s <= turn.from_s) {
      belief = perhapsTurned(belief, unseen.shift()!.odds)
      isFirst = true
    }
    // A turn that nobody saw is in the odds already.
    if (year.unseen.some((u) => u.on.some((i) => i.from_s === turn.from_s))) continue
    const valve = valves[turn.output]!
    const next = nextValves(belief)
    if (!next.has(valve)) impossible++
    for (const [of, odds] of next) {
      const bin = said[Math.min(BINS - 1, Math.floor(odds * BINS))]!
      if (isFirst) {
        bin.count++
        bin.odds += odds
        bin.came += Number(of === valve)
      }
      if (odds > 1 - 1e-9) {
        certain++
        certainWrong += Number(of !== valve)
      }
    }
    isFirst = false
    belief = turned(belief, 1)
    if (random() < LOOKS / 365) belief = watered(belief, valve)
  }
  lost += belief.lost
}
const worst = Math.max(...said.filter((b) => b.count > 200).map((b) => Math.abs(b.odds - b.came) / b.count))
const result = { seed, cases, turns, differing, impossible, certain, certainWrong, lost, calibration: worst }
console.log(
  process.argv.includes('--json')
    ? JSON.stringify(result)
    : `${cases} years, ${turns} turns: ${differing} years differ; of ${certain} certain turns ${certainWrong} wrong; ` +
        `odds are off by ${(worst * 100).toFixed(1)} % at most`,
)
