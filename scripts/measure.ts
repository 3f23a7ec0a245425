import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import ts from 'typescript'
import { parse } from 'vue/compiler-sfc'

// How long lines, functions and templates are, by folder: npm run -s measure. Tests count in the last column alone.

const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..')
const FOLDERS = ['core', 'words', 'app', 'server', 'cli', 'standins', 'bench', 'demo', 'scripts']
const MOST_COLUMNS = 120

interface Source {
  readonly path: string
  readonly text: string
}
const isTest = ({ path }: Source) => /\.(test|spec)\.ts$/.test(path) || path.startsWith('tests/')
const sourcesIn = (folder: string): Source[] =>
  readdirSync(join(ROOT, folder), { withFileTypes: true, recursive: true })
    .filter((e) => e.isFile() && /\.(ts|mjs|vue)$/.test(e.name))
    .map((e) => {
      const path = join(e.parentPath, e.name)
      return { path: path.slice(ROOT.length + 1), text: readFileSync(path, 'utf8') }
    })

/** The script and the template of a source, each with its lines. */
function partsOf({ path, text }: Source): { script: string; template_lines: number } {
  if (!path.endsWith('.vue')) return { script: text, template_lines: 0 }
  const { descriptor } = parse(text)
  const { template, script, scriptSetup } = descriptor
  return {
    script: (scriptSetup ?? script)?.content ?? '',
    template_lines: template ? template.loc.end.line - template.loc.start.line : 0,
  }
}

/** Lines of every function with a body of its own, by where it stands. */
function functionsOf(source: Source): { lines: number; where: string }[] {
  const file = ts.createSourceFile(source.path, partsOf(source).script, ts.ScriptTarget.Latest, true)
  const lineAt = (position: number) => file.getLineAndCharacterOfPosition(position).line
  const found: { lines: number; where: string }[] = []
  const visit = (node: ts.Node): void => {
    if (ts.isFunctionLike(node) && 'body' in node && node.body) {
      const [from, to] = [lineAt(node.getStart()), lineAt(node.getEnd())]
      found.push({ lines: to - from + 1, where: `${source.path}:${from + 1}` })
    }
    ts.forEachChild(node, visit)
  }
  visit(file)
  return found
}

const quantile = (sorted: readonly number[], q: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * q))] ?? 0

function rowOf(folder: string): string[] {
  const all = sourcesIn(folder)
  const sources = all.filter((s) => !isTest(s))
  const lines = sources.flatMap((s) => s.text.split('\n'))
  const long = lines.filter((line) => line.length > MOST_COLUMNS).length
  const functions = sources.flatMap(functionsOf).sort((a, b) => a.lines - b.lines)
  const lengths = functions.map((f) => f.lines)
  const template = Math.max(0, ...sources.map((s) => partsOf(s).template_lines))
  const longest = functions.at(-1)
  return [
    folder,
    String(lines.length),
    `${((100 * long) / lines.length).toFixed(1)} %`,
    String(functions.length),
    String(quantile(lengths, 0.5)),
    String(quantile(lengths, 0.9)),
    longest ? `${longest.lines} (${longest.where})` : '',
    template > 0 ? String(template) : '',
    String(all.filter(isTest).reduce((sum, s) => sum + s.text.split('\n').length, 0)),
  ]
}

const head = ['folder', 'lines', 'over 120', 'functions', 'median', 'p90', 'longest', 'longest template', 'test lines']
for (const row of [head, head.map(() => '---'), ...FOLDERS.map(rowOf)]) console.log(`| ${row.join(' | ')} |`)
for (const folder of ['tests', 'e2e'])
  console.log(`\n${folder}: ${sourcesIn(folder).reduce((sum, s) => sum + s.text.split('\n').length, 0)} lines`)
