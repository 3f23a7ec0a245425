import type { DeviceId } from './ids'
import { getOrThrow } from './look-up'
import type { Site } from './site'

/** What people call a device: its tag, else its name, else its id. */
export function deviceName(site: Site, id: DeviceId): string {
  const { tag, name } = getOrThrow(site.devices, id)
  return tag ?? (name || id)
}
