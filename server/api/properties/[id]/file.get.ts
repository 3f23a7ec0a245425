import { getQuery, setResponseHeader } from 'h3'
import * as z from 'zod'
import { propertyPieces } from '../../../../core/formats'
import { parseWith, refusal } from '../../../../core/refusal'
import { journalSnapshots, journalSteps } from '../../../db/journal'
import { picturesOf } from '../../../db/pictures'
import { propertyToWrite } from '../../../db/outgoing'
import { refuse } from '../../../utils/reply'
import { propertyParam, route } from '../../../utils/route'
import { streamWithin } from '../../../utils/stream'
import { zipped } from '../../../utils/zipped'

/** `as=zip` has the pictures beside the file; `journal=yes` brings every change with it. */
const query = z.strictObject({
  as: z.enum(['json', 'zip']).default('json'),
  journal: z.enum(['yes', 'no']).default('no'),
})

/** The property as a file to keep: canonical JSON, the same bytes for the same property. */
export default route(async (event) => {
  const id = propertyParam(event)
  if (!id.ok) return refuse(event, 400, id.refusals)
  const asked = parseWith(query, getQuery(event), ['query'])
  if (!asked.ok) return refuse(event, 400, asked.refusals)
  const { as, journal } = asked.value
  return streamWithin(event, async (within) => {
    const stored = await propertyToWrite(within, id.value)
    if (!stored) return { answer: refuse(event, 404, [refusal('no_such_property')]) }
    const past = {
      journal: { snapshots: journalSnapshots(within, id.value), steps: journalSteps(within, id.value) },
    }
    const file = propertyPieces({ ...stored, ...(journal === 'yes' ? past : {}) })
    const name = fileName(stored.site.about?.name)
    return {
      begin: () => {
        setResponseHeader(event, 'content-type', as === 'zip' ? 'application/zip' : 'application/json; charset=utf-8')
        setResponseHeader(event, 'content-disposition', `attachment; filename="${name}.${as}"`)
      },
      pieces: as === 'zip' ? zipped(within, id.value, file, await picturesOf(within, id.value)) : file,
    }
  })
})

const fileName = (name: unknown) =>
  String(name ?? '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'property'
