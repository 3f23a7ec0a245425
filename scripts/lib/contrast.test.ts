import { readFileSync } from 'node:fs'
import { join } from 'node:path'

const css = readFileSync(join(__dirname, '../../app/styles/base.css'), 'utf8')
const theme = (selector: string): Record<string, string> => {
  const block = css.slice(css.indexOf(`${selector} {`)).split('}')[0]!
  return Object.fromEntries([...block.matchAll(/--([\w-]+): (#[0-9a-f]{3,6})/g)].map((m) => [m[1]!, m[2]!]))
}

/** Contrast of two colours as WCAG 2 defines it. */
function contrast(a: string, b: string): number {
  const [light, dark] = [a, b]
    .map((hex) => {
      const full = hex.length === 4 ? [...hex.slice(1)].map((c) => c + c).join('') : hex.slice(1)
      const [r, g, blue] = [0, 2, 4].map((i) => {
        const c = parseInt(full.slice(i, i + 2), 16) / 255
        return c <= 0.03928 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4
      }) as [number, number, number]
      return 0.2126 * r + 0.7152 * g + 0.0722 * blue
    })
    .sort((x, y) => y - x) as [number, number]
  return (light + 0.05) / (dark + 0.05)
}

const WORDS = ['ink', 'quiet', 'copper', 'fits', 'doubtful', 'fault']
test.each([
  [':root', 7],
  ["[data-theme='dusk']", 4.5],
])('%s: every colour that writes stands %f : 1 off every ground it is written on', (selector, least) => {
  const colours = theme(selector)
  const low = WORDS.flatMap((word) =>
    ['paper', 'sheet'].map((ground) => [`${word} on ${ground}`, contrast(colours[word]!, colours[ground]!)] as const),
  ).filter(([, c]) => !(c >= least))
  expect(low).toEqual([])
  expect(contrast(colours['on-copper']!, colours.copper!)).toBeGreaterThanOrEqual(4.5)
  for (const word of ['ink', 'quiet', 'fault', 'fits', 'doubtful'])
    for (const ground of ['copper-soft', 'hover'])
      expect(contrast(colours[word]!, colours[ground]!)).toBeGreaterThanOrEqual(4.5)
})
