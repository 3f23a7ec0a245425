import { getRouterParam } from 'h3'
import { uuid } from '../../../core/record'
import { parseWith, refusal } from '../../../core/refusal'
import { progressOf } from '../../utils/intake'
import { refuse } from '../../utils/reply'
import { route } from '../../utils/route'

/** How far a file has been taken in. */
export default route(async (event) => {
  const token = parseWith(uuid, getRouterParam(event, 'token'), ['address'])
  if (!token.ok) return refuse(event, 400, token.refusals)
  return Promise.resolve(progressOf(token.value) ?? refuse(event, 404, [refusal('no_such_intake')]))
})
