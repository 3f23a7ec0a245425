import { createHash } from 'node:crypto'
import { MOST_BYTES } from '../../../../../core/formats'
import { refusal } from '../../../../../core/refusal'
import { actingAs } from '../../../../db/actor'
import { storePicture } from '../../../../db/pictures'
import { actorOf } from '../../../../utils/actor'
import { database } from '../../../../utils/database'
import { pictureKind } from '../../../../utils/picture'
import { refuse } from '../../../../utils/reply'
import { pictureParam, propertyParam, readBytes, route } from '../../../../utils/route'

/** Takes a picture's bytes in under their own SHA-256; sending them again is no harm. */
export default route(async (event) => {
  const [id, sha256] = [propertyParam(event), pictureParam(event)]
  if (!id.ok) return refuse(event, 400, id.refusals)
  if (!sha256.ok) return refuse(event, 400, sha256.refusals)
  const body = await readBytes(event)
  if (body === null) return refuse(event, 413, [refusal('too_large')])
  const kind = pictureKind(body)
  if (kind === null) return refuse(event, 415, [refusal('not_a_picture', [], { limit: MOST_BYTES / 1_000_000 })])
  if (createHash('sha256').update(body).digest('hex') !== sha256.value)
    return refuse(event, 400, [refusal('other_bytes')])
  const kept = await actingAs(database(), actorOf(event), (within) =>
    storePicture(within, id.value, sha256.value, { kind, bytes: body }),
  )
  if (kept === 'kept') return { kept: sha256.value }
  return refuse(event, kept === 'pictures_full' ? 413 : 404, [refusal(kept)])
})
