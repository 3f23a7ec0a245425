import fc from 'fast-check'
import type { Content } from 'pdfmake/interfaces'
import type { CabinetCard, CardLine } from '../../core/card'
import { boxTagsDoc } from './box-tags'
import { cabinetCardDoc } from './cabinet-card'
import type { Print } from './sheet'
import { spans, type Font } from './spans'
import { terminalLabelsDoc } from './terminal-labels'

interface Piece {
  readonly text: string
  readonly font: string
}
/** All that a document says, in its order, piece by piece with its font. */
function piecesOf(content: unknown, font = 'Words'): Piece[] {
  if (typeof content === 'string') return [{ text: content, font }]
  if (Array.isArray(content)) return content.flatMap((c) => piecesOf(c, font))
  if (typeof content !== 'object' || content === null) return []
  const { font: own = font, text, stack, columns, table } = content as Record<string, unknown> & { font?: string }
  return [text, stack, columns, (table as { body: unknown } | undefined)?.body].flatMap((c) => piecesOf(c, own))
}
const saidIn = (print: Print): string =>
  piecesOf(print.document.content)
    .map((p) => p.text)
    .join('\n')
const say = (key: string, params: Record<string, string | number> = {}) =>
  [key, ...Object.values(params)].join(' ').trim()

const line = (n: number): CardLine => ({
  terminal: `t${n}` as CardLine['terminal'],
  label: `${n}`,
  role: n === 0 ? 'common' : 'station',
  name: n === 0 ? '' : `Bed ${n}`,
  zone: 'Hill',
  conductors: [{ from: 'K1', colour: n % 2 === 0 ? 'red' : null }],
  boxes: [`B${n}`],
  baseline: n % 3 === 0 ? { ohm: 30 + n, at: '2026-04-11T08:00:00.000Z' } : null,
  expected_ohm: 40 + n,
})
const cardOf = (lines: number): CabinetCard => ({
  property: 'Quarry lake',
  contractor: '',
  controller: { tag: 'A', name: 'Gatehouse', place: 'A' as CabinetCard['controller']['place'] },
  lines: Array.from({ length: lines }, (_, n) => line(n)),
  spares: [{ from: 'K1', colour: 'grey', state: 'capped' }],
  master: { name: 'Master', box: 'B1' },
  temporary: [{ what: 'Master bypassed', since: '2027-03-01' }],
  ground_C: 12,
})
const printed = (lines: number, programs: Content[] = []) =>
  cabinetCardDoc(cardOf(lines), {
    ...{ paper: 'A4', url: 'https://here/p/1', today: '1 March', say, programs },
    ohms: (ohm) => `${ohm} Ω`,
    day: (at) => at.slice(0, 10),
  })

test('a text is set whole and in its order, in our fonts as far as they go and in the other for the rest', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), fc.constantFrom<Font>('Words', 'Figures'), (text, font) => {
      const set = spans(text, font) as { text: string; font: string }[]
      expect(set.map((s) => s.text).join('')).toBe(text)
      expect(set.length).toBeGreaterThan(0)
      for (const s of set) expect(['Other', font]).toContain(s.font)
    }),
  )
  expect(spans('33.6 Ω', 'Figures')).toEqual([
    { text: '33.6 ', font: 'Figures' },
    { text: 'Ω', font: 'Other' },
  ])
})

test('the card for the door has every line once, on as many sides as it takes, and what is left open on the last', () => {
  for (const lines of [1, 13, 22, 26, 27, 60]) {
    const { document } = printed(lines)
    const pages = document.content as Content[]
    expect(pages).toHaveLength(Math.ceil(lines / 26))
    const names = piecesOf(pages)
      .map((p) => p.text)
      .filter((t) => t.startsWith('Bed'))
    expect(names).toEqual(Array.from({ length: lines - 1 }, (_, n) => `Bed ${n + 1} · Hill`))
    const bypassed = pages.map((page) => piecesOf(page).some((p) => p.text.includes('Master bypassed')))
    expect(bypassed).toEqual(pages.map((_, i) => i === pages.length - 1))
    expect(pages.map((page) => 'pageBreak' in (page as object))).toEqual(bypassed.map((last) => !last))
  }
})

test('what a thread read is told before what it should read, a conductor without a colour says so; programs have a side of their own', () => {
  const said = saidIn(printed(4))
  for (const t of ['33 ', '2026-04-11', '41 ', '42 ', 'print.expected', 'K1 red', 'K1 print.noColour', 'print.common'])
    expect(said).toContain(t)
  expect(said).not.toContain('43 ')
  const pages = printed(4, [{ text: 'Monday' }]).document.content as Content[]
  expect(pages).toHaveLength(2)
  expect(piecesOf(pages[1]).map((p) => p.text)).toEqual(['Monday'])
})

test('labels: one for every screw and a flag with it on both halves; a sheet of tags says how many valves it leaves out', () => {
  const said = piecesOf(terminalLabelsDoc([cardOf(6)], { paper: 'LETTER', say }).document.content).map((p) => p.text)
  for (let n = 0; n < 6; n++) expect(said.filter((t) => t === `A:${n}`)).toHaveLength(3)
  const valves = Array.from({ length: 8 }, (_, n) => ({ terminal: `A:${n}`, name: `Bed ${n}` }))
  const tag = (k: number) => ({ place: `p${k}` as never, tag: `B${k}`, name: '', valves: k === 0 ? valves : [] })
  const tags = boxTagsDoc([tag(0), tag(1), tag(2)], {
    ...{ paper: 'A4', property: 'Quarry lake', say, urlOf: (t) => `https://here/${t.tag}` },
  })
  expect(saidIn(tags)).toContain('print.moreValves 3')
  expect(saidIn(tags).match(/^B\d$/gm)).toEqual(['B0', 'B1', 'B2'])
  expect(saidIn(tags)).not.toContain('Bed 5')
})
