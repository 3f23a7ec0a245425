import { spawn, spawnSync } from 'node:child_process'
import { dirname, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

/** The folder of this clone. */
export const CLONE = resolve(dirname(fileURLToPath(import.meta.url)), '../..')
export const isRoot = process.getuid?.() === 0

/** Progress, one plain line. */
export const say = (line) => console.log(line)

/** Ends the run with one sentence: what is wrong and what to do. */
export function giveUp(sentence, code = 2) {
  console.error(sentence)
  process.exit(code)
}

export const wait = (ms) => new Promise((done) => setTimeout(done, ms))

/** Runs a command to its end; its output is kept and shown only where it fails. */
export function quietly(command, args, options = {}) {
  const done = spawnSync(command, args, { encoding: 'utf8', maxBuffer: 1 << 28, cwd: CLONE, ...options })
  return {
    ok: done.status === 0,
    output: `${done.stdout ?? ''}${done.stderr ?? ''}${done.error ? String(done.error) : ''}`,
    status: done.status,
  }
}

/** The same beside others: resolves when it is done. */
export function quietlyAside(command, args, options = {}) {
  return new Promise((done) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'], cwd: CLONE, ...options })
    const pieces = []
    child.stdout.on('data', (piece) => pieces.push(piece))
    child.stderr.on('data', (piece) => pieces.push(piece))
    const end = (status, more = '') =>
      done({ ok: status === 0, output: `${Buffer.concat(pieces).toString('utf8')}${more}`, status })
    child.on('error', (error) => end(127, String(error)))
    child.on('close', (code) => end(code ?? 1))
  })
}

/** Runs a command with its output shown; resolves with its exit code. */
export function openly(command, args, options = {}) {
  return new Promise((done) => {
    const child = spawn(command, args, { stdio: ['ignore', 'inherit', 'inherit'], cwd: CLONE, ...options })
    child.on('error', () => done(127))
    child.on('exit', (code) => done(code ?? 1))
  })
}

/** The last lines of a long output, enough to see what went wrong. */
export const tail = (text, lines = 25) => text.trimEnd().split('\n').slice(-lines).join('\n')
