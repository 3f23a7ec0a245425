import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join, relative, resolve, sep } from 'node:path'

const ROOT = resolve(__dirname, '..')
/**
 * What each room of the core may read besides itself. An arrow that is not here is a mistake or a decision to write
 * down.
 */
const ALLOWED: Readonly<Record<string, readonly string[]>> = {
  refusal: [],
  quantity: [],
  chance: [],
  site: ['quantity', 'refusal'],
  record: ['site', 'refusal'],
  circuit: ['quantity', 'site', 'refusal'],
  expect: ['quantity', 'site', 'record', 'circuit'],
  plan: ['quantity', 'site', 'refusal'],
  splice: ['quantity', 'site', 'refusal', 'plan'],
  map: ['chance', 'site', 'refusal', 'plan'],
  cabinet: ['site', 'refusal', 'circuit', 'splice'],
  sizing: ['quantity', 'site', 'circuit'],
  path: ['quantity', 'site', 'record', 'refusal', 'circuit', 'sizing', 'splice', 'plan', 'map', 'cabinet'],
  'path-hunt': ['site', 'record', 'refusal', 'circuit', 'path', 'hunt', 'map'],
  sequencer: ['site', 'record', 'refusal', 'plan'],
  schedule: ['quantity', 'chance', 'site', 'refusal', 'circuit', 'path', 'map', 'sequencer'],
  repair: ['quantity', 'site', 'record', 'refusal', 'plan', 'path', 'splice', 'sizing', 'schedule', 'sequencer'],
  quote: ['quantity', 'site', 'record', 'refusal', 'map', 'procedure', 'repair', 'quoted', 'sightings'],
  takeoff: ['quantity', 'site'],
  strip: ['site'],
  history: ['site', 'record', 'expect'],
  hunt: ['quantity', 'site', 'record', 'circuit', 'expect', 'map'],
  symptom: ['site', 'record'],
  quoted: ['record'],
  sightings: ['site', 'record', 'quoted'],
  company: ['site', 'record'],
  order: ['site', 'record', 'expect', 'history', 'map', 'procedure', 'quoted', 'repair'],
  timeline: ['site', 'record', 'quoted', 'sightings'],
  failures: ['site', 'record', 'hunt'],
  attention: ['site', 'record', 'expect', 'history', 'repair', 'quoted', 'sightings'],
  cores: ['chance', 'site', 'record', 'refusal'],
  trace: ['site', 'record', 'map', 'refusal'],
  procedure: ['site', 'record', 'refusal', 'expect', 'history', 'splice', 'cabinet', 'map', 'sequencer'],
  card: ['site', 'record', 'expect', 'history', 'splice', 'cabinet', 'procedure', 'map', 'sightings'],
  formats: [
    'quantity',
    'site',
    'record',
    'circuit',
    'expect',
    'refusal',
    'plan',
    'takeoff',
    'map',
    'trace',
    'schedule',
    'quote',
  ],
}
const PACKAGES: Readonly<Record<string, readonly string[]>> = {
  formats: ['zod', 'papaparse', 'fast-xml-parser', '@streamparser/json', 'ical-generator'],
  sizing: ['zod', 'highs'],
  trace: ['ml-matrix'],
  quote: ['zod', 'fraction.js'],
  schedule: ['zod', 'luxon'],
  default: ['zod'],
}

const sources = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true, recursive: true } as never as { withFileTypes: true })
    .filter((e) => e.isFile() && /\.(ts|vue)$/.test(e.name) && !e.name.endsWith('.test.ts'))
    .map((e) =>
      join(
        (e as unknown as { parentPath?: string; path: string }).parentPath ?? (e as unknown as { path: string }).path,
        e.name,
      ),
    )
const importsOf = (file: string) =>
  [...readFileSync(file, 'utf8').matchAll(/^(import|export)( type)? [^'"]*?from '([^']+)'|^import '([^']+)'/gm)].map(
    (m) => ({ typeOnly: m[2] !== undefined, path: m[3] ?? m[4]! }),
  )

test('the core reads only what its arrows allow, and no package beyond the named ones', () => {
  const wrong: string[] = []
  expect(sources(join(ROOT, 'core')).length).toBeGreaterThan(40)
  for (const file of sources(join(ROOT, 'core'))) {
    const room = relative(join(ROOT, 'core'), file).split(sep)[0]!
    for (const { path } of importsOf(file)) {
      const inside = path.startsWith('.') ? relative(join(ROOT, 'core'), resolve(dirname(file), path)).split(sep) : null
      const fine = inside
        ? inside[0] === room || ALLOWED[room]?.includes(inside[0]!)
        : (PACKAGES[room] ?? PACKAGES.default!).includes(path)
      if (!fine) wrong.push(`${relative(ROOT, file)} reads ${path}`)
    }
  }
  expect(wrong).toEqual([])
})

/** What there is to speak of: the records, and what kinds of test and of fact say of themselves. */
const SPOKEN_OF = ['../core/record', '../core/site']

test('words read the records; of what computes they take types alone; nobody in the core knows a screen, a server or a shell', () => {
  const wrong = sources(join(ROOT, 'words')).flatMap((file) =>
    importsOf(file)
      .filter(({ typeOnly, path }) => path.includes('../core/') && !typeOnly && !SPOKEN_OF.includes(path))
      .map(({ path }) => `${relative(ROOT, file)} reads ${path}`),
  )
  const outward = sources(join(ROOT, 'core')).filter((file) =>
    /from '(\.\.\/)+(app|server|cli|standins|words)\//.test(readFileSync(file, 'utf8')),
  )
  expect([...wrong, ...outward]).toEqual([])
})

test('the stand-ins read the core alone: the record, the formats and a coil’s sheet, and nothing of what judges their answers', () => {
  const rooms = new Set(
    sources(join(ROOT, 'standins')).flatMap((file) =>
      importsOf(file)
        .map(({ path }) => /^(?:\.\.\/)+(core\/[^/]+|app|server|cli|words|bench|demo)/.exec(path)?.[1])
        .filter((room) => room !== undefined),
    ),
  )
  expect([...rooms].sort()).toEqual([
    'core/circuit',
    'core/formats',
    'core/quantity',
    'core/record',
    'core/refusal',
    'core/site',
  ])
})

test('no two files of the core read each other in a ring, for types neither', () => {
  const graph = new Map(
    sources(join(ROOT, 'core')).map((file) => [
      file,
      importsOf(file)
        .filter((i) => i.path.startsWith('.'))
        .map((i) => resolve(dirname(file), i.path))
        .flatMap((p) => [`${p}.ts`, join(p, 'index.ts')]),
    ]),
  )
  const done = new Set<string>()
  const visit = (file: string, trail: readonly string[]): string[] => {
    if (trail.includes(file)) return [[...trail, file].map((f) => relative(ROOT, f)).join(' → ')]
    if (done.has(file)) return []
    const rings = (graph.get(file) ?? [])
      .filter((next) => graph.has(next))
      .flatMap((next) => visit(next, [...trail, file]))
    done.add(file)
    return rings
  }
  expect([...graph.keys()].flatMap((file) => visit(file, []))).toEqual([])
})

/** What each room outside the core may read besides itself, and within the page what each folder may. */
const OUTSIDE: Readonly<Record<string, readonly string[]>> = {
  words: ['core'],
  app: ['core', 'words', 'demo'],
  server: ['core', 'words', 'standins'],
  cli: ['core', 'words', 'standins'],
  demo: ['core'],
}
const PAGE: Readonly<Record<string, readonly string[]>> = {
  lib: [],
  print: ['lib'],
  workers: ['lib', 'print'],
  stores: ['lib', 'workers'],
  composables: ['lib', 'stores', 'workers', 'print'],
  components: ['lib', 'stores', 'composables', 'workers'],
  plugins: ['lib', 'stores', 'composables'],
  middleware: ['lib'],
  pages: ['lib', 'stores', 'composables', 'components', 'workers', 'print'],
}

test('page, server and shell read inward only; in the page what is drawn reads what is held, never the reverse', () => {
  const wrong: string[] = []
  const check = (folder: string, allowed: Readonly<Record<string, readonly string[]>>) =>
    Object.entries(allowed).forEach(([room, others]) => {
      const files = sources(join(ROOT, folder, room))
      expect([room, files.length > 0]).toEqual([room, true])
      for (const file of files)
        for (const { path } of importsOf(file)) {
          const [top, first] = relative(join(ROOT, folder), resolve(dirname(file), path)).split(sep)
          const inside = path.startsWith('.') && top !== '..' && first !== undefined
          if (inside && top !== room && !others.includes(top!)) wrong.push(`${relative(ROOT, file)} reads ${path}`)
        }
    })
  check('.', OUTSIDE)
  check('app', PAGE)
  expect(wrong).toEqual([])
})
