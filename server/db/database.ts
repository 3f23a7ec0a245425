import { Kysely, PostgresDialect } from 'kysely'
import pg from 'pg'
import type { Tables } from './tables'

export type Database = Kysely<Tables>

/** A pool of connections. Idle ones that break (the database was stopped) are dropped and made again when needed. */
export function openDatabase(url: string): Database {
  const pool = new pg.Pool({ connectionString: url, max: 20, connectionTimeoutMillis: 4000, statement_timeout: 20_000 })
  pool.on('error', () => {
    /* an idle connection ended; the next request opens another or answers 503 */
  })
  // One that breaks while a request holds it fails that request's statement; without a listener it would be uncaught
  // as well.
  pool.on('connect', (client) => {
    client.on('error', () => {
      /* told by the statement */
    })
  })
  return new Kysely<Tables>({ dialect: new PostgresDialect({ pool }) })
}

/**
 * Whether an error says that the database is not there, or has no room or no time, rather than that a statement was
 * wrong: the same may be asked again later.
 */
export function isDatabaseDown(error: unknown): boolean {
  const { code, message } = error as { code?: string; message?: string }
  return (
    /^(ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|ENOSPC|57P0[1-4]|57014|08\d{3}|53\d{3}|58030)$/.test(code ?? '') ||
    /Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error|Query read timeout/.test(
      message ?? '',
    )
  )
}
