import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'

/** Notes in a clone of where its data lies, and in the data of whose it is: either finds the other when one moves. */
const NOTE_OF_HOME = join('.data', 'home')
const NOTE_OF_CLONE = 'clone'

const noteIn = (file) => (existsSync(file) ? readFileSync(file, 'utf8').trim() : null)

/**
 * Where the database of a clone lies. PostgreSQL refuses to run as root and cannot read a clone in a private folder, so
 * as root it lies under `shared`, else in the clone itself.
 * @param options `clone`: its folder; `shared`: the folder for all clones of root, null for everybody else;
 *   `wanted`: a folder named by hand
 * @returns `home`, and `says`: sentences about data that is elsewhere, for whoever starts it
 */
export function findHome({ clone, shared, wanted = null }) {
  if (shared === null) return { home: wanted ?? join(clone, '.data', 'postgres'), says: [] }
  const own = join(shared, createHash('sha256').update(clone).digest('hex').slice(0, 16))
  if (wanted !== null) return { home: wanted, says: [`Using the data in ${wanted}.`] }
  const noted = noteIn(join(clone, NOTE_OF_HOME))
  if (noted !== null && noted !== own && existsSync(noted)) {
    const other = noteIn(join(noted, NOTE_OF_CLONE))
    const isCopy = other !== null && other !== clone && noteIn(join(other, NOTE_OF_HOME)) === noted
    return isCopy
      ? { home: own, says: [`This folder is a copy of ${other}, whose data in ${noted} stays with it.`] }
      : { home: noted, says: [`This folder was moved; its data still lies in ${noted}.`] }
  }
  if (existsSync(own)) return { home: own, says: [] }
  const left = lostHomes(shared)
  return {
    home: own,
    says: left.map(
      (l) => `Data of ${l.clone}, which is not there any more, lies in ${l.home}. To use it: DATA=${l.home} npm start`,
    ),
  }
}

/** Data whose clone is gone. */
function lostHomes(shared) {
  if (!existsSync(shared)) return []
  return readdirSync(shared)
    .map((name) => join(shared, name))
    .filter((home) => existsSync(join(home, 'main', 'PG_VERSION')))
    .map((home) => ({ home, clone: noteIn(join(home, NOTE_OF_CLONE)) }))
    .filter(({ clone }) => clone !== null && !existsSync(clone))
}

/** Notes on both sides whose data this is. */
export function noteHome(clone, home) {
  mkdirSync(dirname(join(clone, NOTE_OF_HOME)), { recursive: true })
  writeFileSync(join(clone, NOTE_OF_HOME), `${home}\n`)
  writeFileSync(join(home, NOTE_OF_CLONE), `${clone}\n`)
}

/**
 * The server programs for data of a version: those that wrote it. A newer version does not read it.
 * @param versions the installed ones
 * @returns `version` to run, and `says` or `stop`: a sentence where there is more to know, or no going on
 */
export function chooseVersion(dataVersion, versions) {
  const newest = Math.max(...versions)
  if (dataVersion === null || dataVersion === newest) return { version: newest }
  if (!versions.includes(dataVersion))
    return {
      stop: `The data is of PostgreSQL ${dataVersion}, and only ${versions.join(', ')} is installed, which does not read it. Install postgresql-${dataVersion}, then run npm run upgrade-database.`,
    }
  return {
    version: dataVersion,
    says: `PostgreSQL ${newest} is installed; the data is of ${dataVersion} and goes on with it. npm run upgrade-database takes it over.`,
  }
}
