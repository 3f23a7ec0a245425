import { sql, type Kysely, type Migration } from 'kysely'
import { DEFAULT_COMPANY, DEFAULT_USER } from '../tables'

/** Properties as one document each, the journal of their changes, and facts as rows. */
export const first: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    const statements = `
      CREATE TABLE companies (id uuid PRIMARY KEY, name text NOT NULL);
      CREATE TABLE users (id uuid PRIMARY KEY, company uuid NOT NULL REFERENCES companies, name text NOT NULL);
      INSERT INTO companies VALUES ('${DEFAULT_COMPANY}', 'This company');
      INSERT INTO users VALUES ('${DEFAULT_USER}', '${DEFAULT_COMPANY}', 'This crew');
      CREATE TABLE properties (
        id uuid PRIMARY KEY, company uuid NOT NULL REFERENCES companies, author uuid NOT NULL REFERENCES users,
        name text NOT NULL, revision integer NOT NULL CHECK (revision >= 0), schema_version integer NOT NULL, site jsonb NOT NULL,
        controllers integer NOT NULL, stations integer NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(), updated_at timestamptz NOT NULL DEFAULT now());
      CREATE TABLE batches (
        id uuid PRIMARY KEY, property uuid NOT NULL REFERENCES properties, company uuid NOT NULL REFERENCES companies,
        author uuid NOT NULL REFERENCES users, revision integer NOT NULL, author_name text NOT NULL, device text NOT NULL,
        at timestamptz NOT NULL, received_at timestamptz NOT NULL DEFAULT now(), commands jsonb NOT NULL, writes jsonb NOT NULL,
        undoes uuid REFERENCES batches, UNIQUE (property, revision));
      CREATE TABLE snapshots (property uuid NOT NULL REFERENCES properties, revision integer NOT NULL, site jsonb NOT NULL, PRIMARY KEY (property, revision));
      CREATE TABLE markers (name text PRIMARY KEY, at timestamptz NOT NULL DEFAULT now());`
    const fact = (name: string, extra: string) => `
      CREATE TABLE ${name} (
        property uuid NOT NULL REFERENCES properties, id text NOT NULL, company uuid NOT NULL REFERENCES companies,
        author uuid NOT NULL REFERENCES users, at timestamptz NOT NULL, received_at timestamptz NOT NULL DEFAULT now(),
        fact jsonb NOT NULL, ${extra} PRIMARY KEY (property, id));`
    const ofVisit = 'visit text NOT NULL, FOREIGN KEY (property, visit) REFERENCES visits (property, id),'
    const ofReading = 'reading text NOT NULL, FOREIGN KEY (property, reading) REFERENCES readings (property, id),'
    const facts =
      fact('visits', '') +
      fact('readings', ofVisit) +
      fact('cautions', ofVisit) +
      fact('closings', ofVisit) +
      fact('strike_outs', ofReading) +
      fact('acceptances', ofReading)
    const indexes =
      'CREATE INDEX readings_by_visit ON readings (property, visit); CREATE INDEX visits_by_time ON visits (property, at DESC);'
    await sql.raw(statements + facts + indexes).execute(db)
  },
}
