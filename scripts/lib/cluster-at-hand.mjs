import { ensurePackages } from './packages.mjs'
import { startCluster } from './postgres.mjs'

/**
 * Does something with the database of this clone, started for it where it does not run; or with the one of
 * DATABASE_URL.
 */
export async function withDatabase(work) {
  ensurePackages(['postgresql'])
  if (process.env.DATABASE_URL) return work(process.env.DATABASE_URL)
  const cluster = await startCluster('main')
  try {
    return await work(cluster.url)
  } finally {
    if (!cluster.wasRunning) await cluster.stop()
  }
}
