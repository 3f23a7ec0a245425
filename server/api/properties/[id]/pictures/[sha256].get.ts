import { send } from 'h3'
import { refusal } from '../../../../../core/refusal'
import { actingAs } from '../../../../db/actor'
import { readPicture } from '../../../../db/pictures'
import { actorOf } from '../../../../utils/actor'
import { database } from '../../../../utils/database'
import { refuse } from '../../../../utils/reply'
import { pictureParam, propertyParam, route } from '../../../../utils/route'

/** A picture's bytes, for ever the same under this address. */
export default route(async (event) => {
  const [id, sha256] = [propertyParam(event), pictureParam(event)]
  if (!id.ok) return refuse(event, 400, id.refusals)
  if (!sha256.ok) return refuse(event, 400, sha256.refusals)
  const picture = await actingAs(database(), actorOf(event), (within) => readPicture(within, id.value, sha256.value))
  if (!picture) return refuse(event, 404, [refusal('no_such_picture')])
  return send(event, picture.bytes, picture.kind)
})
