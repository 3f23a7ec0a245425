import { pathText } from '../core/refusal'
import { readArguments } from './flags'

const read = (...argv: string[]) => {
  const outcome = readArguments(argv)
  return outcome.ok ? outcome.value : outcome.refusals.map((r) => `${r.code} ${pathText(r.path)}`)
}

test('words and flags in any order, everything else by default', () => {
  expect(
    read('judge', '--ground', '9.5', 'a.json', '--json', 'b.csv', '--open-mark', '1', '--highest=200'),
  ).toMatchObject({
    verb: 'judge',
    files: ['a.json', 'b.csv'],
    flags: { json: true, ground: 9.5, 'open-mark': '1', highest: 200, accuracy: 0.01, offset: 0.2, 'lead-zero': 0 },
  })
})

test.each<[string[], string[]]>([
  [[], ['usage (whole)']],
  [['expect', 'f', '--ground', 'warm'], ['bad_value --ground']],
  [['expect', 'f', '--ground', '95'], ['bad_value --ground']],
  [['expect', 'f', '--ground', ''], ['bad_value --ground']],
  [['expect', 'f', '--accuracy', '1'], ['bad_value --accuracy']],
  [['expect', 'f', '--highest', '3'], ['bad_value --highest']],
  [['expect', 'f', '--open-mark', 'X'], ['not_one_of --open-mark']],
  [['expect', 'f', '--json', '--loud'], ['bad_flag --loud']],
  [['expect', 'f', '--ground'], ['bad_flag --ground']],
  [
    ['expect', 'f', '--offset', '30', '--lead-zero', '-1'],
    ['bad_value --offset', 'bad_value --lead-zero'],
  ],
])('%j', (argv, expected) => {
  const got = read(...argv)
  if (argv.at(-1) === '-1') expect(got).toEqual(expect.arrayContaining([expect.stringMatching(/^bad_(flag|value) --/)]))
  else expect(got).toEqual(expected)
})
