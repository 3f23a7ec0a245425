import { send, setResponseHeader } from 'h3'
import { refusal } from '../../../../../core/refusal'
import { readPicture } from '../../../../db/pictures'
import { database } from '../../../../utils/database'
import { refuse } from '../../../../utils/reply'
import { pictureParam, propertyParam, route } from '../../../../utils/route'

/** A picture's bytes, for ever the same under this address. */
export default route(async (event) => {
  const [id, sha256] = [propertyParam(event), pictureParam(event)]
  if (!id.ok) return refuse(event, 400, id.refusals)
  if (!sha256.ok) return refuse(event, 400, sha256.refusals)
  const picture = await readPicture(database(), id.value, sha256.value)
  if (!picture) return refuse(event, 404, [refusal('no_such_picture')])
  setResponseHeader(event, 'x-content-type-options', 'nosniff')
  return send(event, picture.bytes, picture.kind)
})
