import { procedure, type Procedure } from '../../record'
import { BOXES } from './boxes'
import { COMMISSION } from './commission'
import { CONTROLLERS } from './controllers'
import { JOINTS } from './joints'
import { PATHS } from './paths'
import { TRACE } from './trace'
import { VALVES } from './valves'
import { VISIT } from './visit'

/** Every procedure that comes with the product, in the order of the work. Their sentences are in the message files. */
export const SHIPPED: readonly Procedure[] = [
  ...[...VISIT, ...JOINTS, ...BOXES, ...VALVES, ...CONTROLLERS, ...COMMISSION, ...TRACE, ...PATHS],
].map((text) => procedure.parse(text))

const byId = new Map(SHIPPED.map((p) => [p.id, p]))
/** One of ours by its name. */
export const shipped = (id: string): Procedure | null => byId.get(id) ?? null
