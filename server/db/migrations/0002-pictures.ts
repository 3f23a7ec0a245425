import { sql, type Kysely, type Migration } from 'kysely'

/** Pictures under the map, by the SHA-256 of their bytes; the site names them. */
export const pictures: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    await sql
      .raw(
        `
      CREATE TABLE pictures (
        property uuid NOT NULL REFERENCES properties, sha256 text NOT NULL CHECK (sha256 ~ '^[0-9a-f]{64}$'), company uuid NOT NULL REFERENCES companies,
        author uuid NOT NULL REFERENCES users, received_at timestamptz NOT NULL DEFAULT now(), kind text NOT NULL, bytes bytea NOT NULL, PRIMARY KEY (property, sha256));`,
      )
      .execute(db)
  },
}
