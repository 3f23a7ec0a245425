import { caseOf, waterTest, METER } from './draw'
import { huntOf } from '../../core/hunt'
const seed = Number(process.argv[2] ?? 100018)
const c = caseOf(seed)
const field = c.field(c.faults)
let t = Date.now()
const lap = (what: string) => { console.log(what, Date.now() - t, 'ms'); t = Date.now() }
const hunt = huntOf(c.site, 'A' as never, { meter: METER, known: c.known })!
lap(`stations ${Object.keys(c.site.stations).length} faults ${hunt.catalogue.faults.length} variants ${hunt.catalogue.variants.length} candidates ${hunt.candidates.length} truth ${c.truth}`)
for (const s of Object.values(c.site.stations)) hunt.take({ test: waterTest(s.terminal), value: field.answer(waterTest(s.terminal), METER) })
lap('symptoms')
for (let n = 0; n < 30; n++) {
  const b = hunt.beliefs()
  lap('beliefs ' + b.explanations.length + [...b.parts].sort((x, y) => y[1] - x[1]).slice(0, 4).map(([k, p]) => ` ${k} ${(p).toFixed(3)}`).join(' |') + ' nothing ' + b.nothing.toFixed(3))
  const s = hunt.stand()
  lap('stand ' + s.kind)
  if (s.kind !== 'open') { console.log(JSON.stringify(s)); break }
  hunt.take({ test: s.next.candidate.test, value: field.answer(s.next.candidate.test, METER) })
  console.log(JSON.stringify(s.next.candidate.test))
  lap('take')
}
