import { sql, type Kysely, type Migration } from 'kysely'

/** What asks for somebody counts leaks on record: it is worked out anew of every property. */
export const countedAnew: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    await sql
      .raw(
        `
      -- Whoever owns the tables is held by their policies too, and would see nothing here.
      ALTER TABLE properties NO FORCE ROW LEVEL SECURITY;
      ALTER TABLE attention_wanted NO FORCE ROW LEVEL SECURITY;
      INSERT INTO attention_wanted (company, property) SELECT company, id FROM properties;
      ALTER TABLE attention_wanted FORCE ROW LEVEL SECURITY;
      ALTER TABLE properties FORCE ROW LEVEL SECURITY;`,
      )
      .execute(db)
  },
}
