import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { readCable } from '../core/cores'
import { OUTPUTS } from './output'
import { thread } from '../tests/shell'

const folder = mkdtempSync(join(tmpdir(), 'cores-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
const answer = async (...args: string[]) =>
  OUTPUTS.cores.parse(JSON.parse((await thread('cores', ...args, '--json')).out))
const fileOf = (cable: unknown) => {
  const path = join(folder, 'cable.json')
  writeFileSync(path, typeof cable === 'string' ? cable : JSON.stringify(cable))
  return path
}

test('seven cores from a shell: the plan, two walks by what it says, and every core named; five want a known one', async () => {
  // What lies at the second end under 1, 2, 3 … of the first.
  const second = [4, 1, 6, 2, 7, 3, 5]
  const start = await answer('--n', '7', '--helper')
  expect([start.cores.length, start.known, start.methods.map((m) => m.method).sort()]).toEqual([
    7,
    0,
    ['groups', 'helper', 'tags'],
  ])
  const walks = []
  let now = start
  while (now.next && walks.length < 4) {
    const { at, groups } = now.next
    const seen = groups.map((g) => g.map((e) => (at === 'first' ? second[e - 1]! : second.indexOf(e) + 1)))
    walks.push({ joinedAt: at, joined: groups, seen })
    now = await answer(fileOf({ cores: 7, bare: { first: null, second: null }, walks }))
  }
  expect(walks).toHaveLength(2)
  expect(now.found!.named).toEqual(second.map((s, i) => ({ first: i + 1, second: s })))
  expect(now.found!.broken).toBeNull()
  expect(await answer('--n', '5')).toMatchObject({ known: 1, cores: { length: 6 } })
  expect((await thread('cores', '--n', '7')).out).toContain('At the first end:')
})

test('bad input: a sentence that names the field, and nothing on standard output', async () => {
  const walk = { joinedAt: 'first', joined: [[1], [2, 3]], seen: [[2], [1, 2]] }
  for (const [args, says] of [
    [['--n', '7.5'], /say how many cores/],
    [[fileOf({ cores: 3, walks: [walk] })], /end 2 is missing, there twice/],
  ] as const) {
    const { status, out, err } = await thread('cores', ...args)
    expect([status, out]).toEqual([2, ''])
    expect(err).toMatch(says)
  }
  expect(readCable('{').ok).toBe(false)
  const other = readCable(JSON.stringify({ cores: 3, cord: 1 }))
  expect(other.ok ? [] : other.refusals.map((r) => r.code)).toEqual(['unknown_field'])
})
