import { createHash } from 'node:crypto'
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join, relative, sep } from 'node:path'

const SOURCE = new URL('../../app/service-worker/worker.js', import.meta.url)
/** What is asked for anew each time, or is another form of a file that is listed. */
const LEFT_OUT = /\.(gz|br|map)$|\/builds\/latest\.json$|\/service-worker\.js$/

/**
 * Writes the service worker beside the built pages: what it keeps, and a version that is another one whenever any of it
 * is.
 * @param folder of the public files of a build
 */
export function writeServiceWorker(folder) {
  const files = readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((e) => e.isFile())
    .map(
      (e) =>
        `/${relative(folder, join(e.parentPath ?? e.path, e.name))
          .split(sep)
          .join('/')}`,
    )
    .filter((path) => !LEFT_OUT.test(path))
    .sort()
  const source = readFileSync(SOURCE, 'utf8')
  const hash = createHash('sha256').update(source)
  for (const path of files) hash.update(path).update(readFileSync(join(folder, path)))
  const head = [
    `const VERSION = ${JSON.stringify(hash.digest('hex').slice(0, 16))}`,
    `const ASSETS = ${JSON.stringify(['/', ...files])}`,
  ]
  writeFileSync(join(folder, 'service-worker.js'), `${head.join('\n')}\n${source}`)
}
