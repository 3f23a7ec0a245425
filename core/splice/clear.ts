import { remove, type Work } from '../plan'
import type { BoxJoint } from './box'

/** Takes a joint's connectors and jumpers off; its ends are loose then. */
export function clear(work: Work, joint: BoxJoint): void {
  for (const { splice, record } of joint.holds) {
    remove(work, 'splices', splice)
    for (const e of record.ends)
      if (e.kind === 'core' && work.site.cables[e.cable]?.kind === 'jumper') remove(work, 'cables', e.cable)
  }
}
