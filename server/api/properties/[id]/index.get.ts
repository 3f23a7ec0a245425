import { refusal } from '../../../../core/refusal'
import { readWhole } from '../../../db/properties'
import { database } from '../../../utils/database'
import { refuse } from '../../../utils/reply'
import { propertyParam, route } from '../../../utils/route'

export default route(async (event) => {
  const id = propertyParam(event)
  if (!id.ok) return refuse(event, 400, id.refusals)
  return (await readWhole(database(), id.value)) ?? refuse(event, 404, [refusal('no_such_property')])
})
