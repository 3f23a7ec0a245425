import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { CLONE, giveUp, quietly, say, tail } from './plain.mjs'

const MARK = join(CLONE, 'node_modules', '.field-thread-lock')

/** Installs what package-lock.json names where it is not installed yet. `tell` gets the progress line. */
export function ensureModules(tell = say) {
  const lock = createHash('sha256')
    .update(readFileSync(join(CLONE, 'package-lock.json')))
    .digest('hex')
  if (existsSync(MARK) && readFileSync(MARK, 'utf8') === lock) return
  tell('Installing packages (npm ci) …')
  const done = quietly('npm', ['ci', '--include=dev', '--no-audit', '--no-fund'])
  if (!done.ok)
    giveUp(`npm ci failed. Check that the package registry can be reached, then start again.\n${tail(done.output, 12)}`)
  writeFileSync(MARK, lock)
}
