import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { postgresBin } from './packages.mjs'
import { tail } from './plain.mjs'

/** Runs one of the database's own programs against an address; returns its last lines where it failed, else null. */
function run(program, args) {
  const done = spawnSync(join(postgresBin(), program), args, { encoding: 'utf8', cwd: '/', maxBuffer: 1 << 26 })
  return done.status === 0 ? null : tail(`${done.stdout ?? ''}${done.stderr ?? ''}${done.error ?? ''}`, 8)
}

/** Everything of a database as one file, as it was at one moment. */
export const dump = (url, file) => run('pg_dump', ['--format=custom', '--no-owner', `--file=${file}`, url])

/** Fills an empty database from such a file: all of it or nothing. */
export const fill = (url, file) =>
  ask(url, ROLE) ??
  run('pg_restore', ['--exit-on-error', '--single-transaction', '--no-owner', `--dbname=${url}`, file])

/** A statement that gives nothing back. */
export const ask = (url, statement) =>
  run('psql', ['--no-psqlrc', '--quiet', '--set=ON_ERROR_STOP=1', `--command=${statement}`, url])

/** Rights are given to it in the file; the role itself belongs to the server and is in none. */
const ROLE = `DO $$ BEGIN IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = 'fieldthread_app') THEN
  CREATE ROLE fieldthread_app NOLOGIN; END IF; GRANT fieldthread_app TO CURRENT_USER; END $$`

/** The same address with another database. */
export function otherDatabase(url, name) {
  const other = new URL(url)
  other.pathname = `/${name}`
  return other.href
}

/**
 * Puts what a file holds in the place of a database; what was there is kept under another name.
 * @returns `trouble`, or `keptAs`: the name under which the former database lies
 */
export function replaceWith(url, file, stamp) {
  const name = new URL(url).pathname.slice(1)
  const [fresh, keptAs] = [`${name}_restored_${stamp}`, `${name}_before_${stamp}`]
  const server = otherDatabase(url, 'postgres')
  const made = ask(server, `CREATE DATABASE "${fresh}"`)
  if (made !== null) return { trouble: made }
  const trouble = fill(otherDatabase(url, fresh), file)
  if (trouble !== null) {
    ask(server, `DROP DATABASE "${fresh}"`)
    return { trouble }
  }
  const swapped =
    ask(server, `ALTER DATABASE "${name}" RENAME TO "${keptAs}"`) ??
    ask(server, `ALTER DATABASE "${fresh}" RENAME TO "${name}"`)
  return swapped === null ? { keptAs } : { trouble: swapped }
}
