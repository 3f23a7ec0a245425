import { ensureModules } from './lib/modules.mjs'
import { ensurePackages } from './lib/packages.mjs'
import { openly } from './lib/plain.mjs'

// The circuit engine against Debian's circuit simulator on seeded random properties: node scripts/reference.mjs
// [CASES].
ensureModules((line) => console.error(line))
ensurePackages(['ngspice'])
process.exitCode = await openly(process.execPath, ['--import', 'tsx', 'tests/reference.ts', ...process.argv.slice(2)])
