import { sql, type Kysely, type Migration } from 'kysely'

const OWN_COMPANY = `company = nullif(current_setting('fieldthread.company', true), '')::uuid`

/** Procedures that a company wrote for itself, by their names; its own rows alone are seen. */
export const procedures: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    await sql
      .raw(
        `
      CREATE TABLE procedures (
        company uuid NOT NULL REFERENCES companies, id text NOT NULL CHECK (id ~ '^[a-z][a-z0-9_]{0,39}$'),
        revision integer NOT NULL CHECK (revision > 0), author uuid NOT NULL REFERENCES users,
        updated_at timestamptz NOT NULL DEFAULT now(), procedure jsonb NOT NULL, PRIMARY KEY (company, id));
      ALTER TABLE procedures ENABLE ROW LEVEL SECURITY, FORCE ROW LEVEL SECURITY;
      CREATE POLICY own_company ON procedures USING (${OWN_COMPANY}) WITH CHECK (${OWN_COMPANY});
      DO $$ BEGIN
        GRANT SELECT, INSERT, UPDATE, DELETE ON procedures TO fieldthread_app;
      EXCEPTION WHEN insufficient_privilege OR undefined_object THEN NULL;
      END $$;`,
      )
      .execute(db)
  },
}
