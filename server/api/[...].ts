import { refusal } from '../../core/refusal'
import { refuse } from '../utils/reply'
import { route } from '../utils/route'

/** Anything under /api/ that no route answers. */
export default route(async (event) => refuse(event, 404, [refusal('no_such_address')]))
