import { openDatabase, type Database } from '../db/database'

let opened: Database | null = null

/** The server's one pool, opened when first asked for. */
export function database(): Database {
  opened ??= openDatabase(process.env.DATABASE_URL ?? '')
  return opened
}
