import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { CLONE, say } from './lib/plain.mjs'

// Packages with a binary per platform list them all as optional dependencies. A registry mirror that carries only some
// platforms makes `npm install` leave the others out of the lock, and `npm ci` then refuses the lock everywhere. This
// writes the missing entries, which no other platform ever fetches. Run it after every change of dependencies.

const SYSTEMS = ['android', 'darwin', 'freebsd', 'openbsd', 'netbsd', 'sunos', 'aix', 'linux', 'openharmony', 'win32']
const PROCESSORS = {
  arm64: 'arm64',
  x64: 'x64',
  ia32: 'ia32',
  arm: 'arm',
  armv7: 'arm',
  ppc64: 'ppc64',
  ppc64le: 'ppc64',
  riscv64: 'riscv64',
  s390x: 's390x',
  loong64: 'loong64',
  mips64el: 'mips64el',
  wasm32: 'wasm32',
}

const file = join(CLONE, 'package-lock.json')
const lock = JSON.parse(readFileSync(file, 'utf8'))
let added = 0
for (const [path, entry] of Object.entries({ ...lock.packages })) {
  for (const [name, version] of Object.entries(entry.optionalDependencies ?? {})) {
    if (path === '' || !/^\d/.test(version) || found(path, name, version)) continue
    const words = name.split(/[-/]/)
    const os = SYSTEMS.filter((system) => words.includes(system))
    const cpu = words.flatMap((word) => PROCESSORS[word] ?? [])
    if (os.length === 0 && cpu.length === 0) continue
    const top = `node_modules/${name}`
    lock.packages[lock.packages[top] ? `${path}/node_modules/${name}` : top] = {
      version,
      optional: true,
      ...(cpu.length > 0 && { cpu }),
      ...(os.length > 0 && { os }),
    }
    added++
  }
}

/** Whether a package at `path` would find this version, looking upward as Node does. */
function found(path, name, version) {
  for (let at = path; ; at = at.includes('/node_modules/') ? at.slice(0, at.lastIndexOf('/node_modules/')) : '') {
    const entry = lock.packages[`${at === '' ? '' : `${at}/`}node_modules/${name}`]
    if (entry) return entry.version === version
    if (at === '') return false
  }
}

lock.packages = Object.fromEntries(Object.entries(lock.packages).sort(([a], [b]) => a.localeCompare(b, 'en')))
writeFileSync(file, `${JSON.stringify(lock, null, 2)}\n`)
say(`${added} entries added to package-lock.json`)
