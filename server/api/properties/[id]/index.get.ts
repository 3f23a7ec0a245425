import { setResponseHeader } from 'h3'
import { refusal } from '../../../../core/refusal'
import { presentSite } from '../../../db/sites'
import { refuse } from '../../../utils/reply'
import { propertyParam, route } from '../../../utils/route'
import { streamWithin } from '../../../utils/stream'
import { wholeProperty } from '../../../utils/whole'

/** A property with everything read there; one that cannot be read says what is in the way, and its file can be had. */
export default route(async (event) => {
  const id = propertyParam(event)
  if (!id.ok) return refuse(event, 400, id.refusals)
  return streamWithin(event, async (within) => {
    const present = await presentSite(within, id.value)
    if (!present) return { answer: refuse(event, 404, [refusal('no_such_property')]) }
    if (!present.ok) return { answer: refuse(event, 422, [refusal('unreadable_record'), ...present.refusals]) }
    return {
      begin: () => setResponseHeader(event, 'content-type', 'application/json; charset=utf-8'),
      pieces: wholeProperty(within, id.value, present.value),
    }
  })
})
