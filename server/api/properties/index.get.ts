import { listProperties } from '../../db/properties'
import { database } from '../../utils/database'
import { route } from '../../utils/route'

export default route(async () => ({ properties: await listProperties(database()) }))
