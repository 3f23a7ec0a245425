import { commonOf, netsOf, terminalEnd, wiringOf, type ControllerId, type DeviceId, type Site } from '../site'
import { jointOf, portEnd } from './work'

/**
 * Which port of a valve is its lead’s: the one that is not on its controller’s common, either where neither is joined
 * yet; null otherwise.
 */
export function leadPorts(site: Site, controller: ControllerId): (device: DeviceId) => 'a' | 'b' | null {
  const wiring = wiringOf(site)
  const nets = netsOf(wiring)
  const common = commonOf(site, controller)
  const commonNet = common && nets.of(wiring.pointOf(terminalEnd(controller, common)))
  return (device) => {
    if (jointOf(site, portEnd(device, 'a')) === null && jointOf(site, portEnd(device, 'b')) === null) return 'a'
    const isCommon = (port: 'a' | 'b') => nets.of(wiring.pointOf(portEnd(device, port))) === commonNet
    return isCommon('b') === isCommon('a') ? null : isCommon('b') ? 'a' : 'b'
  }
}
