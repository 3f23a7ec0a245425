import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { ensureModules } from './lib/modules.mjs'
import { CLONE, openly } from './lib/plain.mjs'

// The shell's standard output is the answer's alone, so progress goes to the other.
if (!existsSync(join(CLONE, 'node_modules', 'tsx'))) ensureModules((line) => console.error(line))
// npm runs scripts from the clone; file names are meant from where the person is, which npm keeps in INIT_CWD.
// Most of what a hunt makes is thrown away after it: room for the young saves carrying it along.
process.exitCode = await openly(
  process.execPath,
  [
    '--max-semi-space-size=64',
    '--import',
    import.meta.resolve('tsx'),
    join(CLONE, 'cli/index.ts'),
    ...process.argv.slice(2),
  ],
  { cwd: process.env.INIT_CWD ?? process.cwd() },
)
