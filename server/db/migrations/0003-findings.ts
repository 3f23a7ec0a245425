import { sql, type Kysely, type Migration } from 'kysely'

/** What visits found to be wrong and mended. */
export const findings: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    await sql
      .raw(
        `
      CREATE TABLE findings (
        property uuid NOT NULL REFERENCES properties, id text NOT NULL, company uuid NOT NULL REFERENCES companies,
        author uuid NOT NULL REFERENCES users, at timestamptz NOT NULL, received_at timestamptz NOT NULL DEFAULT now(),
        fact jsonb NOT NULL, visit text NOT NULL, FOREIGN KEY (property, visit) REFERENCES visits (property, id), PRIMARY KEY (property, id));`,
      )
      .execute(db)
  },
}
