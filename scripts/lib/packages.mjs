import { existsSync, mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { giveUp, isRoot, quietly, say, tail } from './plain.mjs'

const VERSIONS = '/usr/lib/postgresql'

/** The versions of the server that are installed. */
export const installedPostgres = () =>
  (existsSync(VERSIONS) ? readdirSync(VERSIONS) : [])
    .filter((v) => existsSync(`${VERSIONS}/${v}/bin/postgres`))
    .map(Number)

/** The newest of them, or null before the package is there. */
export const newestPostgres = () => installedPostgres().sort((a, b) => b - a)[0] ?? null

/**
 * Where Debian puts a version's server programs, the newest's where none is named; null before the package is there.
 */
export function postgresBin(version = newestPostgres()) {
  return version === null ? null : `${VERSIONS}/${version}/bin`
}

const NEEDS = {
  postgresql: { there: () => postgresBin() !== null, what: 'the database' },
  ngspice: {
    there: () => existsSync('/usr/bin/ngspice'),
    what: 'the circuit simulator that the engine is checked against',
  },
  chromium: { there: () => existsSync('/usr/bin/chromium'), what: 'the browser for the tests' },
}

/** Installs those of Debian's packages that are missing: as root, else through sudo without a password, else asks. */
export function ensurePackages(names) {
  const missing = names.filter((name) => !NEEDS[name].there())
  if (missing.length === 0) return
  const line = `apt-get update && apt-get install -y --no-install-recommends ${missing.join(' ')}`
  const sudo = isRoot ? [] : ['sudo', '-n']
  if (!isRoot && !quietly('sudo', ['-n', 'true']).ok)
    giveUp(`Missing: ${missing.join(', ')}. Install with this line, then start again:\n  sudo sh -c '${line}'`)
  say(`Installing ${missing.map((name) => `${name} (${NEEDS[name].what})`).join(', ')} …`)
  const apt = (...args) => {
    const env = [
      'env',
      'DEBIAN_FRONTEND=noninteractive',
      'apt-get',
      '-o',
      'DPkg::Lock::Timeout=600',
      '-o',
      'Dpkg::Options::=--force-confold',
      '-qq',
      ...args,
    ]
    const [command, ...rest] = [...sudo, ...env]
    const done = quietly(command, rest, { cwd: '/' })
    if (!done.ok)
      giveUp(
        `Installing ${missing.join(', ')} failed. Run this line by hand to see why:\n  ${line}\n${tail(done.output, 8)}`,
      )
  }
  apt('update')
  const noCluster = missing.includes('postgresql') && isRoot ? suppressDefaultCluster() : () => {}
  try {
    apt('install', '-y', '--no-install-recommends', ...missing)
  } finally {
    noCluster()
  }
  const still = missing.filter((name) => !NEEDS[name].there())
  if (still.length > 0)
    giveUp(`${still.join(', ')} was installed, but is not where Debian puts it. Install it by hand, then start again.`)
}

/** Debian makes and starts a cluster of its own when the server is installed. This keeps it from doing so, once. */
function suppressDefaultCluster() {
  const file = '/etc/postgresql-common/createcluster.conf'
  if (existsSync(file)) return () => {}
  mkdirSync('/etc/postgresql-common', { recursive: true })
  writeFileSync(file, 'create_main_cluster = false\n')
  return () => rmSync(file, { force: true })
}
