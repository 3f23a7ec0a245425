import { sql } from 'kysely'
import { database } from '../utils/database'
import { route } from '../utils/route'

export default route(async () => {
  await sql`select 1`.execute(database())
  return { well: true }
})
