import { commandsBetween } from '../core/plan'
import { asFound, harmOf, USUAL_FIGURES, whyNot, type RepairAsk } from '../core/repair'
import type { ControllerId } from '../core/site'
import { applied, drawnDamage, judged } from '../tests/drawn-damage'

// Repairs: drawn properties with something found bad. What is called possible is done to the record by its commands and
// asked of a simulated property and of the circuit engine; what is called impossible is done too, and must fail.

const argument = (name: string, usual: number) => {
  const at = process.argv.indexOf(`--${name}`)
  return at < 0 ? usual : Number(process.argv[at + 1])
}
const [seed, cases] = [argument('seed', 1), argument('cases', 300)]
const A = 'A' as ControllerId
const TODAY = '2027-05-01'
const counts = { possible: 0, impossible: 0, tried: 0, harmed: 0 }
const wrong = { dryAfter: 0, astray: 0, possibleFails: 0, impossiblePasses: 0, ranking: 0 }
const reasons: Record<string, number> = {}
for (let n = 0; n < cases; n++) {
  const { site, where } = drawnDamage(seed * 10_000 + n)
  const { options, dryAfter, astray, isHarmed } = judged(site, where)
  counts.harmed += Number(isHarmed)
  wrong.dryAfter += dryAfter.length
  wrong.astray += astray.length
  const damage = asFound(site, where)
  const { stopped, working } = harmOf(site, A, damage)
  const ask: RepairAsk = { site, where, damage, controller: A, stopped, today: TODAY }
  const lasting: number[] = []
  for (const o of options) {
    if (o.possible) {
      counts.possible++
      if (!o.isTemporary) lasting.push(o.cents)
      const after = applied(site, o.commands)
      const again = after && whyNot(ask, { ...o.tried, after: { ...o.tried.after, site: after } }, working)
      if (after === null || again !== null) wrong.possibleFails++
      continue
    }
    counts.impossible++
    reasons[o.why.code] = (reasons[o.why.code] ?? 0) + 1
    for (const { tried } of o.inVain) {
      counts.tried++
      const after = applied(site, commandsBetween(site, tried.after.site))
      // A record that refuses it fails it too.
      if (after && whyNot(ask, { ...tried, after: { ...tried.after, site: after } }, working) === null)
        wrong.impossiblePasses++
    }
  }
  if (lasting.some((cents) => cents < lasting[0]!)) wrong.ranking++
}
const result = { seed, cases, ...counts, ...wrong, reasons, figures: USUAL_FIGURES.cents_per_min }
console.log(
  process.argv.includes('--json')
    ? JSON.stringify(result)
    : `${cases} properties, ${counts.possible} options possible, ` +
        `${counts.impossible} not (${counts.tried} tried in vain): ` +
        Object.entries(wrong)
          .map(([k, v]) => `${k} ${v}`)
          .join(', '),
)
