import { sql, type Kysely, type Migration } from 'kysely'

/** Kind of fact, the table it had, and the kind and column of the fact it hangs on. */
const OLD_TABLES = [
  ['visit', 'visits', null],
  ['reading', 'readings', 'visit'],
  ['strikeOut', 'strike_outs', 'reading'],
  ['caution', 'cautions', 'visit'],
  ['closing', 'closings', 'visit'],
  ['acceptance', 'acceptances', 'reading'],
  ['finding', 'findings', 'visit'],
] as const

/** What the rows of a company may be seen by: a session that has said whose it is, and nobody else. */
const OWN_COMPANY = `company = nullif(current_setting('fieldthread.company', true), '')::uuid`
const GUARDED = ['users', 'properties', 'batches', 'snapshots', 'facts', 'pictures']

/**
 * All facts in one table, keys that begin with the company, documents with the version they were written with, and
 * rows that only their own company sees.
 */
export const oneTableOfFacts: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    // The first migration once had no acceptances; databases made then are still about.
    const mended = `
      CREATE TABLE IF NOT EXISTS acceptances (
        property uuid NOT NULL REFERENCES properties, id text NOT NULL, company uuid NOT NULL REFERENCES companies,
        author uuid NOT NULL REFERENCES users, at timestamptz NOT NULL, received_at timestamptz NOT NULL DEFAULT now(),
        fact jsonb NOT NULL, reading text NOT NULL, PRIMARY KEY (property, id));`
    const facts = `
      CREATE TABLE facts (
        company uuid NOT NULL, property uuid NOT NULL, kind text NOT NULL, id text NOT NULL,
        owner_kind text, owner text, author uuid NOT NULL, at timestamptz NOT NULL,
        received_at timestamptz NOT NULL DEFAULT now(), schema_version integer NOT NULL, fact jsonb NOT NULL,
        PRIMARY KEY (company, property, kind, id));`
    const copied = OLD_TABLES.map(
      ([kind, table, owner]) => `
      INSERT INTO facts (company, property, kind, id, owner_kind, owner, author, at, received_at, schema_version, fact)
      SELECT company, property, '${kind}', id, ${owner ? `'${owner}', ${owner}` : 'NULL, NULL'}, author, at, received_at, 1, fact
      FROM ${table};`,
    )
    const dropped = [...OLD_TABLES].reverse().map(([, table]) => `DROP TABLE ${table};`)
    const keys = `
      ALTER TABLE batches DROP CONSTRAINT batches_property_fkey, DROP CONSTRAINT batches_undoes_fkey,
        DROP CONSTRAINT batches_pkey, DROP CONSTRAINT batches_property_revision_key,
        ADD COLUMN schema_version integer NOT NULL DEFAULT 1;
      ALTER TABLE batches ALTER COLUMN schema_version DROP DEFAULT;
      ALTER TABLE snapshots DROP CONSTRAINT snapshots_property_fkey, DROP CONSTRAINT snapshots_pkey,
        ADD COLUMN company uuid, ADD COLUMN schema_version integer NOT NULL DEFAULT 1;
      ALTER TABLE snapshots ALTER COLUMN schema_version DROP DEFAULT;
      UPDATE snapshots SET company = properties.company FROM properties WHERE properties.id = snapshots.property;
      ALTER TABLE snapshots ALTER COLUMN company SET NOT NULL;
      ALTER TABLE pictures DROP CONSTRAINT pictures_property_fkey, DROP CONSTRAINT pictures_pkey;
      ALTER TABLE properties DROP CONSTRAINT properties_pkey, ADD PRIMARY KEY (company, id),
        ADD COLUMN archived_at timestamptz;
      ALTER TABLE batches ADD PRIMARY KEY (company, property, id), ADD UNIQUE (company, property, revision),
        ADD FOREIGN KEY (company, property) REFERENCES properties (company, id) ON DELETE CASCADE,
        ADD FOREIGN KEY (company, property, undoes) REFERENCES batches (company, property, id) ON DELETE CASCADE
          DEFERRABLE;
      ALTER TABLE snapshots ADD PRIMARY KEY (company, property, revision),
        ADD FOREIGN KEY (company, property) REFERENCES properties (company, id) ON DELETE CASCADE;
      ALTER TABLE pictures ADD PRIMARY KEY (company, property, sha256),
        ADD FOREIGN KEY (company, property) REFERENCES properties (company, id) ON DELETE CASCADE;
      ALTER TABLE facts
        ADD FOREIGN KEY (company, property) REFERENCES properties (company, id) ON DELETE CASCADE,
        ADD FOREIGN KEY (author) REFERENCES users,
        ADD FOREIGN KEY (company, property, owner_kind, owner) REFERENCES facts (company, property, kind, id)
          ON DELETE CASCADE DEFERRABLE;
      CREATE INDEX facts_by_time ON facts (company, property, kind, at DESC);
      CREATE INDEX facts_by_owner ON facts (company, property, owner_kind, owner);
      CREATE INDEX properties_by_name ON properties (company, lower(name), id);`
    await sql.raw([mended, facts, ...copied, ...dropped, keys].join('\n')).execute(db)

    const guards = GUARDED.map(
      (table) => `
      ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY, FORCE ROW LEVEL SECURITY;
      CREATE POLICY own_company ON ${table} USING (${OWN_COMPANY}) WITH CHECK (${OWN_COMPANY});`,
    )
    // A superuser passes by every policy, so work is done in a role that does not; where none may be made, the
    // connection's own user is no superuser and the policies hold for it as they are.
    const role = `
      DO $$ BEGIN
        IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = 'fieldthread_app') THEN
          CREATE ROLE fieldthread_app NOLOGIN;
        END IF;
        GRANT fieldthread_app TO CURRENT_USER;
        GRANT USAGE ON SCHEMA public TO fieldthread_app;
        GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO fieldthread_app;
      EXCEPTION WHEN insufficient_privilege THEN NULL;
      END $$;`
    await sql.raw([...guards, role].join('\n')).execute(db)
  },
}
