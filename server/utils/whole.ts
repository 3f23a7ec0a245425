import { factKinds, kindOf } from '../../core/record'
import type { Within } from '../db/actor'
import { factsOf } from '../db/facts'
import { stepsBefore } from '../db/journal'
import { findProperty, type PresentSite } from '../db/sites'

/** A whole property with its last steps as JSON, in pieces. */
export async function* wholeProperty(
  within: Within,
  id: string,
  { site, revision }: PresentSite,
): AsyncGenerator<string> {
  const steps = await stepsBefore(within, id, revision + 1)
  const archived = (await findProperty(within, id))!.archived_at !== null
  yield `{"id":${JSON.stringify(id)},"revision":${revision},"archived":${archived},"site":${JSON.stringify(site)},`
  yield `"steps":${JSON.stringify(steps)},"facts":{`
  for (const [i, kind] of factKinds.entries()) {
    yield `${i === 0 ? '' : ','}${JSON.stringify(kindOf(kind).collection)}:{`
    let between = ''
    for await (const list of factsOf(within, id, kind)) {
      yield between + list.map(([key, fact]) => `${JSON.stringify(key)}:${JSON.stringify(fact)}`).join(',')
      between = ','
    }
    yield '}'
  }
  yield '}}'
}
