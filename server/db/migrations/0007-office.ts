import { sql, type Kysely, type Migration } from 'kysely'

const OWN_COMPANY = `company = nullif(current_setting('fieldthread.company', true), '')::uuid`
const guarded = (table: string) => `
  ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY, FORCE ROW LEVEL SECURITY;
  CREATE POLICY own_company ON ${table} USING (${OWN_COMPANY}) WITH CHECK (${OWN_COMPANY});
  DO $$ BEGIN
    GRANT SELECT, INSERT, UPDATE, DELETE ON ${table} TO fieldthread_app;
  EXCEPTION WHEN insufficient_privilege OR undefined_object THEN NULL;
  END $$;`

/**
 * What belongs to a company and to no property (its price list, the views of its list); and what of each property asks
 * for somebody, and how long its parts lived, worked out from its record and thrown away with it. What is to be worked out anew is noted beside what
 * changed it, so that nothing is forgotten when a server ends; what is on record now is noted here.
 */
export const office: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    const tables = `
      CREATE TABLE company_records (
        company uuid NOT NULL REFERENCES companies, kind text NOT NULL,
        revision integer NOT NULL CHECK (revision > 0), author uuid NOT NULL REFERENCES users,
        updated_at timestamptz NOT NULL DEFAULT now(), record jsonb NOT NULL, PRIMARY KEY (company, kind));
      CREATE TABLE attention (
        company uuid NOT NULL, property uuid NOT NULL,
        astray integer NOT NULL, faults integer NOT NULL, findings integer NOT NULL, creeping integer NOT NULL, creeps_on date,
        temporary integer NOT NULL, temporary_until date, quotes integer NOT NULL, quoted_on date,
        visits integer NOT NULL, last_visit timestamptz, visit_due date,
        latitude_deg double precision, longitude_deg double precision, words tsvector NOT NULL,
        PRIMARY KEY (company, property),
        FOREIGN KEY (company, property) REFERENCES properties (company, id) ON DELETE CASCADE);
      CREATE INDEX attention_by_words ON attention USING gin (words);
      CREATE TABLE part_lives (
        company uuid NOT NULL, property uuid NOT NULL, lives jsonb NOT NULL, PRIMARY KEY (company, property),
        FOREIGN KEY (company, property) REFERENCES properties (company, id) ON DELETE CASCADE);
      CREATE TABLE attention_wanted (
        number bigint GENERATED ALWAYS AS IDENTITY, company uuid NOT NULL, property uuid NOT NULL,
        noted_at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (company, property, number),
        FOREIGN KEY (company, property) REFERENCES properties (company, id) ON DELETE CASCADE);`
    // Whoever owns the tables is held by their policies too, and would see nothing here.
    const noted = `
      ALTER TABLE properties NO FORCE ROW LEVEL SECURITY;
      INSERT INTO attention_wanted (company, property) SELECT company, id FROM properties;
      ALTER TABLE properties FORCE ROW LEVEL SECURITY;`
    const guards = ['company_records', 'attention', 'part_lives', 'attention_wanted'].map(guarded)
    await sql.raw([tables, noted, ...guards].join('\n')).execute(db)
  },
}
