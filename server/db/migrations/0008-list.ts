import { sql, type Kysely, type Migration } from 'kysely'

const OWN_COMPANY = `company = nullif(current_setting('fieldthread.company', true), '')::uuid`

/**
 * The list reads a row of `attention` for every property of a company, and nothing else of those it does not show: so the
 * row is there from the first moment, narrow, and has what a property is called, kept by the database itself. The words
 * that it is found by are in a table of their own, its name is searched in small letters. One index has it all in the order of names in everybody's alphabet.
 */
export const list: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    await sql
      .raw(
        `
      CREATE TABLE attention_words (
        company uuid NOT NULL, property uuid NOT NULL, words tsvector NOT NULL, PRIMARY KEY (company, property),
        FOREIGN KEY (company, property) REFERENCES properties (company, id) ON DELETE CASCADE);
      ALTER TABLE attention ADD COLUMN name text, ADD COLUMN updated_at timestamptz, ADD COLUMN archived boolean,
        ADD COLUMN folded text COLLATE "C" GENERATED ALWAYS AS (lower(name COLLATE "und-x-icu") COLLATE "C") STORED;
      -- Whoever owns the tables is held by their policies too, and would see nothing here.
      ALTER TABLE properties NO FORCE ROW LEVEL SECURITY;
      ALTER TABLE attention NO FORCE ROW LEVEL SECURITY;
      INSERT INTO attention_words SELECT company, property, words FROM attention;
      ALTER TABLE attention DROP COLUMN words, ALTER COLUMN astray SET DEFAULT 0, ALTER COLUMN faults SET DEFAULT 0,
        ALTER COLUMN findings SET DEFAULT 0, ALTER COLUMN creeping SET DEFAULT 0, ALTER COLUMN temporary SET DEFAULT 0,
        ALTER COLUMN quotes SET DEFAULT 0, ALTER COLUMN visits SET DEFAULT 0;
      INSERT INTO attention (company, property, name, updated_at, archived)
        SELECT company, id, name, updated_at, archived_at IS NOT NULL FROM properties
        ON CONFLICT (company, property) DO UPDATE
        SET name = excluded.name, updated_at = excluded.updated_at, archived = excluded.archived;
      ALTER TABLE attention FORCE ROW LEVEL SECURITY;
      ALTER TABLE properties FORCE ROW LEVEL SECURITY;
      ALTER TABLE attention
        ALTER COLUMN name SET NOT NULL, ALTER COLUMN updated_at SET NOT NULL, ALTER COLUMN archived SET NOT NULL;
      CREATE FUNCTION attention_follows() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN
        INSERT INTO attention (company, property, name, updated_at, archived)
          VALUES (NEW.company, NEW.id, NEW.name, NEW.updated_at, NEW.archived_at IS NOT NULL)
          ON CONFLICT (company, property) DO UPDATE
          SET name = excluded.name, updated_at = excluded.updated_at, archived = excluded.archived;
        RETURN NULL;
      END $$;
      CREATE TRIGGER attention_follows AFTER INSERT OR UPDATE OF name, updated_at, archived_at ON properties
        FOR EACH ROW EXECUTE FUNCTION attention_follows();
      DROP INDEX properties_by_name;
      CREATE INDEX attention_in_order ON attention (company, name COLLATE "und-x-icu", property)
        INCLUDE (folded, updated_at, last_visit, visit_due, astray, faults, findings, creeps_on, temporary_until, quotes)
        WHERE NOT archived;
      CREATE INDEX attention_words_by_word ON attention_words USING gin (words);
      ALTER TABLE attention_words ENABLE ROW LEVEL SECURITY, FORCE ROW LEVEL SECURITY;
      CREATE POLICY own_company ON attention_words USING (${OWN_COMPANY}) WITH CHECK (${OWN_COMPANY});
      DO $$ BEGIN
        GRANT SELECT, INSERT, UPDATE, DELETE ON attention_words TO fieldthread_app;
      EXCEPTION WHEN insufficient_privilege OR undefined_object THEN NULL;
      END $$;`,
      )
      .execute(db)
  },
}
