import { sql, type Kysely, type Migration } from 'kysely'

/** The tests that only a hunt made, when a visit did not say what it was spent on. */
const HUNT_TESTS = [
  ...['water', 'swap_test', 'tone', 'coil_ohms', 'coil_volts', 'loop_lead', 'loop_common', 'lead_earth'],
  ...['lead_through', 'common_earth', 'energise', 'by_hand', 'look', 'remake'],
]

/** The words of a finding's old key: its kind, and then the ids under these names. */
const PARTS: readonly (readonly [kind: string, fields: readonly string[]])[] = [
  ['joint', ['splice']],
  ['coil', ['device']],
  ['valve', ['device']],
  ['pair', ['controller', 'one', 'two']],
  ['terminal', ['controller', 'terminal']],
  ['supply', ['controller']],
  ['sensor', ['controller']],
  ['water', ['controller']],
]
const ID = '[A-Za-z0-9][A-Za-z0-9_-]{0,63}'
const word = (n: number) => `split_part(f.fact->>'part', ' ', ${n})`
const isKey = (kind: string, ids: number, places = 0) =>
  `f.fact->>'part' ~ '^${kind}( ${ID}){${ids}}( [0-9]{1,4}){${places}}$'`
const named = (kind: string, fields: readonly string[], more = '') =>
  `jsonb_build_object('kind', '${kind}', ${fields.map((f, i) => `'${f}', ${word(2 + i)}`).join(', ')}${more})`

/** Of a run or a touch the last two words are places in the cable's list of stops, which now has ids for them. */
const stretch = (kind: string, cores: readonly string[]) => {
  const stop = (n: number) => `p.site->'cables'->${word(2)}->'stops'->(${word(n)}::int)->>'id'`
  const [from, to] = [stop(3 + cores.length), stop(4 + cores.length)]
  const object = named(kind, ['cable', ...cores], `, 'from', ${from}, 'to', ${to}`)
  return `WHEN ${isKey(kind, 1 + cores.length, 2)} THEN
    CASE WHEN ${from} IS NOT NULL AND ${to} IS NOT NULL THEN ${object} ELSE 'null'::jsonb END`
}

const WHERE = `CASE
  ${PARTS.map(([kind, fields]) => `WHEN ${isKey(kind, fields.length)} THEN ${named(kind, fields)}`).join('\n  ')}
  ${stretch('run', ['core'])}
  ${stretch('touch', ['core', 'other'])}
  ELSE 'null'::jsonb END`

/**
 * A visit was one piece of work at one controller. It becomes a stay and the job in it, both under its id; what hung on
 * it hangs on the job, and findings name their part by ids instead of places in a list.
 */
export const jobsInVisits: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    const jobs = `
      INSERT INTO facts (company, property, kind, id, owner_kind, owner, author, at, received_at, schema_version, fact)
      SELECT company, property, 'job', id, 'visit', id, author, at, received_at, 5,
        fact || jsonb_build_object('visit', id, 'kind', CASE WHEN EXISTS (
          SELECT FROM facts r WHERE r.company = v.company AND r.property = v.property
            AND r.owner_kind = 'visit' AND r.owner = v.id
            AND (r.kind = 'finding' OR r.fact->'test'->>'kind' IN (${HUNT_TESTS.map((t) => `'${t}'`).join(', ')}))
        ) THEN 'hunt' ELSE 'sweep' END)
      FROM facts v WHERE kind = 'visit';`
    const findings = `
      UPDATE facts f SET fact = (f.fact - 'part') || jsonb_build_object('where', ${WHERE})
      FROM properties p WHERE p.company = f.company AND p.id = f.property AND f.kind = 'finding';`
    const rest = `
      UPDATE facts SET owner_kind = 'job', fact = (fact - 'visit') || jsonb_build_object('job', owner)
      WHERE owner_kind = 'visit' AND kind <> 'job';
      UPDATE facts SET fact = jsonb_build_object('at', fact->'at', 'author', fact->'author', 'people', '[]'::jsonb)
      WHERE kind = 'visit';
      UPDATE facts SET schema_version = 5;`
    // Whoever owns the tables is held by their policies too, and would see nothing here.
    const guard = (how: string) => `ALTER TABLE facts ${how} ROW LEVEL SECURITY;
      ALTER TABLE properties ${how} ROW LEVEL SECURITY;`
    await sql
      .raw([guard('NO FORCE'), jobs, findings, rest, 'SET CONSTRAINTS ALL IMMEDIATE;', guard('FORCE')].join('\n'))
      .execute(db)
  },
}
