import { zipSync } from 'fflate'
import { getQuery, send, setResponseHeader } from 'h3'
import { writeProperty } from '../../../../core/formats'
import { refusal } from '../../../../core/refusal'
import { readPicture } from '../../../db/pictures'
import { readWhole } from '../../../db/properties'
import { database } from '../../../utils/database'
import { refuse } from '../../../utils/reply'
import { propertyParam, route } from '../../../utils/route'

/** The property as a file to keep: canonical JSON, the same bytes for the same property; `?as=zip` has its pictures beside it. */
export default route(async (event) => {
  const id = propertyParam(event)
  if (!id.ok) return refuse(event, 400, id.refusals)
  const whole = await readWhole(database(), id.value)
  if (!whole) return refuse(event, 404, [refusal('no_such_property')])
  const name =
    whole.site.about.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'property'
  if (getQuery(event).as === 'zip') {
    const files: Record<string, Uint8Array> = { 'property.json': Buffer.from(writeProperty(whole)) }
    for (const { sha256 } of Object.values(whole.site.underlays)) {
      const picture = await readPicture(database(), id.value, sha256)
      if (picture) files[`pictures/${sha256}`] = picture.bytes
    }
    setResponseHeader(event, 'content-disposition', `attachment; filename="${name}.zip"`)
    // Pictures are packed already.
    return send(event, Buffer.from(zipSync(files, { level: 0 })), 'application/zip')
  }
  setResponseHeader(event, 'content-type', 'application/json; charset=utf-8')
  setResponseHeader(event, 'content-disposition', `attachment; filename="${name}.json"`)
  return writeProperty(whole)
})
