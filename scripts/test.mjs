import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBuild } from './lib/build.mjs'
import { ensureModules } from './lib/modules.mjs'
import { ensurePackages } from './lib/packages.mjs'
import { CLONE, openly, quietlyAside, say, tail } from './lib/plain.mjs'
import { freePort } from './lib/ports.mjs'
import { supervise } from './lib/supervise.mjs'

// Everything that must hold, in the order in which a mistake is cheapest to find. The last line counts all of it.

const RESULTS = join(CLONE, 'test-results')
const NOTES = join(RESULTS, 'running.json')
/** Whatever takes longer than this hangs: it is ended and counts as failed. */
const LONGEST_ms = 45 * 60_000
const counted = { passed: 0, failed: 0 }
const count = (passed, failed) => {
  counted.passed += passed
  counted.failed += failed
}

ensureModules()
ensurePackages(['postgresql', 'chromium', 'ngspice'])
rmSync(RESULTS, { recursive: true, force: true })
mkdirSync(RESULTS, { recursive: true })

/** A check that either holds or does not. */
async function check(what, command, args) {
  say(`${what} …`)
  const done = await quietlyAside(command, args, { env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1' } })
  if (!done.ok) say(tail(done.output, 60))
  count(Number(done.ok), Number(!done.ok))
}

async function jest(project, env = {}) {
  const file = join(RESULTS, `${project}.json`)
  const code = await openly(
    'npx',
    [
      '--no-install',
      'jest',
      `--selectProjects=${project}`,
      '--json',
      `--outputFile=${file}`,
      // Long enough for a busy machine: what hangs still ends, and what passes is not slower for it.
      '--testTimeout=120000',
      // A test that fails may leave a connection open, and the run must end all the same.
      ...(project === 'routes' ? ['--runInBand', '--forceExit'] : ['--maxWorkers=2']),
    ],
    { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, ...env }, timeout: LONGEST_ms },
  )
  try {
    const result = JSON.parse(readFileSync(file, 'utf8'))
    const suitesThatDidNotRun = result.testResults.filter(
      (s) => s.status === 'failed' && s.assertionResults.length === 0,
    ).length
    count(result.numPassedTests, result.numFailedTests + suitesThatDidNotRun)
  } catch {
    count(0, Math.max(1, code))
  }
}

async function playwright(env) {
  const file = join(RESULTS, 'browser.json')
  const code = await openly('npx', ['--no-install', 'playwright', 'test'], {
    env: { ...process.env, ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: file },
    timeout: LONGEST_ms,
  })
  try {
    const { stats } = JSON.parse(readFileSync(file, 'utf8'))
    count(stats.expected, stats.unexpected + stats.flaky)
    if (code !== 0 && stats.unexpected + stats.flaky === 0) count(0, 1)
  } catch {
    count(0, Math.max(1, code))
  }
}

/** What is looked at without being run. */
async function statics() {
  await check('Checking the formatting', 'npx', ['--no-install', 'prettier', '--check', '.'])
  await check('Linting', 'npx', ['--no-install', 'eslint', '.', '--max-warnings', '0'])
  await check('Preparing types', 'npx', ['--no-install', 'nuxt', 'prepare'])
  await check('Checking types of the application', 'npx', ['--no-install', 'vue-tsc', '-b', '--noEmit'])
  await check('Checking types of core, shell and their tests', 'npx', [
    '--no-install',
    'tsc',
    '-p',
    'tsconfig.core.json',
  ])
  await check('Checking types of browser tests', 'npx', ['--no-install', 'tsc', '-p', 'tsconfig.e2e.json'])
  await check('Checking the circuit engine against the simulator', 'node', ['scripts/reference.mjs'])
}
say('Unit tests, and beside them:')
await Promise.all([jest('unit'), statics()])
ensureBuild()

const port = await freePort()
const running = supervise({
  cluster: ['test', { fresh: true, durable: true }],
  port,
  demo: true,
  note: (pids) => writeFileSync(NOTES, JSON.stringify(pids)),
  fail: async (sentence) => {
    say(sentence)
    count(0, 1)
    await finish()
  },
})
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.on(signal, () => void running.stop().then(() => process.exit(130)))
const url = await running.ready
const env = { BASE_URL: `http://127.0.0.1:${port}`, DATABASE_URL: url, RUNNING_NOTES: NOTES }
say('Route tests …')
await jest('routes', env)
say('Browser tests …')
await playwright(env)
await finish()

async function finish() {
  await running.stop()
  console.log(`${counted.passed} passed, ${counted.failed} failed`)
  process.exit(counted.failed === 0 ? 0 : 1)
}
