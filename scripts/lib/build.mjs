import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { CLONE, giveUp, quietly, say, tail } from './plain.mjs'

const SOURCES = ['app', 'core', 'words', 'server', 'nuxt.config.ts', 'package-lock.json', 'tsconfig.json']
const MARK = join(CLONE, '.output', 'built-from')

function filesUnder(path) {
  const full = join(CLONE, path)
  if (!existsSync(full)) return []
  const entries = readdirSync(full, { withFileTypes: true })
  return entries.flatMap((e) => (e.isDirectory() ? filesUnder(join(path, e.name)) : [join(path, e.name)]))
}

function fingerprint() {
  const hash = createHash('sha256')
  for (const source of SOURCES) {
    for (const file of source.includes('.') ? [source] : filesUnder(source).sort())
      hash
        .update(file)
        .update('\0')
        .update(readFileSync(join(CLONE, file)))
  }
  return hash.digest('hex')
}

/** Builds the application where its sources have changed since the last build. */
export function ensureBuild() {
  const sources = fingerprint()
  if (existsSync(MARK) && readFileSync(MARK, 'utf8') === sources) return
  say('Building the application …')
  const done = quietly('npx', ['--no-install', 'nuxt', 'build'], {
    env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production', CI: '1' },
  })
  if (!done.ok || !existsSync(join(CLONE, '.output/server/index.mjs')))
    giveUp(`The build failed.\n${tail(done.output)}`, 1)
  writeFileSync(MARK, sources)
}
