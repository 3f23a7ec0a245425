import { expose } from 'comlink'
import { threadsOn, type Threads } from '../../core/attention'
import type { Facts } from '../../core/record'
import type { Site } from '../../core/site'

const work = {
  /** The threads that read a fault last, and those that creep. */
  read(site: Site, facts: Facts): Threads {
    const looking = threadsOn(site, facts)
    let next = looking.next()
    while (!next.done) next = looking.next()
    return next.value
  },
}
export type ThreadsWork = typeof work

expose(work)
