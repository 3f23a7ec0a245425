import type { CableId, CoreId, DeviceId, PlaceId, SpliceId } from '../site'

/** Somewhere a fault may be. */
export type Suspect =
  | {
      readonly kind: 'stretch'
      readonly cable: CableId
      readonly core: CoreId
      readonly from: PlaceId
      readonly to: PlaceId
    }
  | { readonly kind: 'joint'; readonly splice: SpliceId; readonly place: PlaceId }
  | { readonly kind: 'coil'; readonly device: DeviceId; readonly place: PlaceId }

/** Which conductors the suspects belong to: the common, one station's own thread, or neither alone. */
export type FaultSide = 'common' | 'thread' | 'several'
