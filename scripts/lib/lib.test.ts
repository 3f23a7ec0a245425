import { spawn } from 'node:child_process'
import { createServer } from 'node:net'

// The scripts are plain modules that Node runs before anything is installed; Jest's CommonJS cannot load them, Node
// can.
const inNode = (code: string): Promise<string> =>
  new Promise((done, fail) => {
    const child = spawn(process.execPath, ['--input-type=module', '-e', code], {
      cwd: process.cwd(),
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    let [out, err] = ['', '']
    child.stdout.on('data', (chunk) => {
      out += String(chunk)
    })
    child.stderr.on('data', (chunk) => {
      err += String(chunk)
    })
    child.on('exit', (code_) => (code_ === 0 ? done(out.trim()) : fail(new Error(err))))
  })

test('a port that is taken is seen as taken, and one that is offered is free', async () => {
  const server = createServer().listen(0, '127.0.0.1')
  await new Promise((ready) => server.once('listening', ready))
  const { port } = server.address() as { port: number }
  const out = await inNode(
    `import { isFree, freePort } from './scripts/lib/ports.mjs'; const f = await freePort(); console.log(await isFree(${port}), await isFree(f), f !== ${port})`,
  )
  server.close()
  expect(out).toBe('false true true')
})

test('a process is known by its number and its command together; ending it waits until it is gone, or makes it go', async () => {
  const out = await inNode(`
    import { spawn } from 'node:child_process'
    import { end, lives } from './scripts/lib/processes.mjs'
    const stubborn = spawn(process.execPath, ['-e', 'process.on("SIGTERM", () => {}); console.log("up"); setInterval(() => {}, 1000) // mark-of-ours'], { stdio: ['ignore', 'pipe', 'ignore'] })
    await new Promise((up) => stubborn.stdout.once('data', up))
    const before = [lives(stubborn.pid, 'mark-of-ours'), lives(stubborn.pid, 'somebody-elses')]
    await end(stubborn.pid, 'somebody-elses', { patience_ms: 100 })
    const spared = lives(stubborn.pid, 'mark-of-ours')
    await end(stubborn.pid, 'mark-of-ours', { patience_ms: 300 })
    await new Promise((t) => setTimeout(t, 100))
    console.log(JSON.stringify([...before, spared, lives(stubborn.pid, 'mark-of-ours')]))`)
  expect(JSON.parse(out)).toEqual([true, false, true, false])
})

test('a command that fails says how, and one that is missing fails like any other', async () => {
  const out = await inNode(`
    import { quietly, tail } from './scripts/lib/plain.mjs'
    const bad = quietly(process.execPath, ['-e', 'console.error("first"); console.error("last"); process.exit(3)'])
    const missing = quietly('no-such-command-here', [])
    console.log(JSON.stringify([bad.ok, bad.status, tail(bad.output, 1), missing.ok, missing.output.includes('ENOENT')]))`)
  expect(JSON.parse(out)).toEqual([false, 3, 'last', false, true])
})

test('data is found again when its clone has moved, stays with its clone when that was copied, and is told of when its clone is gone', async () => {
  const out = await inNode(`
    import { cpSync, mkdirSync, mkdtempSync, renameSync, rmSync, writeFileSync } from 'node:fs'
    import { tmpdir } from 'node:os'
    import { join } from 'node:path'
    import { chooseVersion, findHome, noteHome } from './scripts/lib/data-home.mjs'
    const top = mkdtempSync(join(tmpdir(), 'homes-'))
    const [shared, a, b, c, d] = ['shared', 'a', 'b', 'c', 'd'].map((n) => join(top, n))
    const begin = (clone) => {
      const { home, says } = findHome({ clone, shared })
      mkdirSync(join(home, 'main'), { recursive: true })
      writeFileSync(join(home, 'main', 'PG_VERSION'), '15')
      noteHome(clone, home)
      return { home, says }
    }
    mkdirSync(a); mkdirSync(d)
    const first = begin(a)
    const again = begin(a)
    renameSync(a, b)
    const moved = begin(b)
    cpSync(b, c, { recursive: true })
    const copy = begin(c)
    rmSync(b, { recursive: true })
    const other = findHome({ clone: d, shared })
    const byHand = findHome({ clone: d, shared, wanted: first.home })
    rmSync(top, { recursive: true })
    console.log(JSON.stringify([
      again.home === first.home, moved.home === first.home, /was moved/.test(moved.says[0]), copy.home !== first.home, /is a copy of/.test(copy.says[0]),
      other.home !== first.home, other.says[0].includes(first.home), byHand.home === first.home, findHome({ clone: a, shared: null }).home === join(a, '.data', 'postgres'),
      chooseVersion(null, [15, 17]).version, chooseVersion(15, [15, 17]).version, /upgrade-database/.test(chooseVersion(15, [15, 17]).says), /Install postgresql-14/.test(chooseVersion(14, [15]).stop),
    ]))
  `)
  expect(JSON.parse(out)).toEqual([true, true, true, true, true, true, true, true, true, 17, 15, true, true])
})
