import { readPricesCsv, writePricesCsv } from '../core/formats'
import { quoteOf } from '../core/quote'
import { drawnLines, drawnPrices, plainTotals } from '../tests/drawn-prices'

// Quotes: drawn price lists and lines against totals by whole numbers alone, and lists through CSV and back.

const argument = (name: string, usual: number) => {
  const at = process.argv.indexOf(`--${name}`)
  return at < 0 ? usual : Number(process.argv[at + 1])
}
const [seed, cases] = [argument('seed', 1), argument('cases', 1000)]
let [lines, roundings, differing, lost] = [0, 0, 0, 0]
for (let n = 0; n < cases; n++) {
  const list = drawnPrices(seed * 10_000 + n)
  const drawn = drawnLines(list, seed * 10_000 + n)
  const made = quoteOf(drawn, list)
  const [net, taxes, total] = plainTotals(drawn, list)
  const back = readPricesCsv(writePricesCsv(list))
  lost += Number(!back.ok || JSON.stringify(back.value) !== JSON.stringify(list))
  lines += drawn.length
  if (!made.ok) {
    differing++
    continue
  }
  roundings += made.value.roundings.length
  const same =
    made.value.net === net &&
    made.value.total === total &&
    made.value.taxes.map((t) => t.amount).join() === taxes.join()
  differing += Number(!same)
}
const result = { seed, cases, lines, roundings, differing, lost }
console.log(
  process.argv.includes('--json')
    ? JSON.stringify(result)
    : `${cases} price lists, ${lines} lines, ${roundings} roundings: ${differing} totals differ, ` +
        `${lost} lists come back otherwise`,
)
