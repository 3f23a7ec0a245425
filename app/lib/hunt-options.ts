import type { Circumstances } from '../../core/hunt'
import type { PlaceId } from '../../core/site'
import { huntOptionsOf } from './device'

/** What a hunt reckons with beside its readings: where the crew stands (null: at the cabinet), and the season. */
export interface HuntOptions {
  from: PlaceId | null
  helper: boolean
  circumstances: Circumstances
}

export const usualHuntOptions = (): HuntOptions => ({
  from: null,
  helper: false,
  circumstances: { digging: [], flooding: [], rodents: [], lightning: false, othersWork: false },
})

/** What this device keeps of a job's hunt, or as usual where it keeps nothing. */
export const huntOptionsFor = (job: string | null): HuntOptions =>
  ((job === null ? null : huntOptionsOf(job)) as HuntOptions | null) ?? usualHuntOptions()
