import type { CableId, Point, Site } from '../../core/site'
import type { Ground, Pose } from './ground'

/** One line in, one line out or none: the simulated wand’s side of a connection. */
export interface WandSession {
  readonly hear: (line: string) => string | null
}

const HELD: Pose = { at: { x_m: 0, y_m: 0 }, heading_deg: 0, height_m: 0, tilt_deg: 0, mode: 'peak', gain: 1 }
/** Where figures may lie. */
const LIMITS = { heading_deg: [0, 360], height_m: [0, 3], tilt_deg: [-80, 80], gain: [1e-6, 1e6] } as const

/**
 * A wand over simulated ground, in plain text: `WAND:LINE K1` puts the tone on a cable by its tag, `WAND:POS 12.5,3.2`
 * (metres east and north), `WAND:HEAD 90` (clockwise from north), `WAND:HEIG 0.1`, `WAND:TILT 45` (to the right),
 * `WAND:MODE NULL|PEAK` and `WAND:GAIN 2` say how it is held; `WAND:READ?` answers with what it shows. A rod stands
 * beside it: `WAND:PROB? 12.5,3.2` answers `lid` or `soil`.
 */
export function wandOn(site: Site, ground: Ground): WandSession {
  let pose = HELD
  let cable: CableId | null = null
  const figure = (text: string, field: keyof typeof LIMITS): null => {
    const [low, high] = LIMITS[field]
    const value = Number(text)
    if (text.trim() !== '' && value >= low && value <= high) pose = { ...pose, [field]: value }
    return null
  }
  const hear = (line: string): string | null => {
    const [, head = '', rest = ''] = /^\s*WAND:(\S+)\s*(.*?)\s*$/i.exec(line) ?? []
    switch (head.toUpperCase()) {
      case 'LINE':
        cable = (Object.entries(site.cables).find(([id, c]) => c.tag === rest || id === rest)?.[0] ??
          null) as CableId | null
        return null
      case 'POS': {
        pose = { ...pose, at: spot(rest) ?? pose.at }
        return null
      }
      case 'HEAD':
        return figure(rest, 'heading_deg')
      case 'HEIG':
        return figure(rest, 'height_m')
      case 'TILT':
        return figure(rest, 'tilt_deg')
      case 'GAIN':
        return figure(rest, 'gain')
      case 'MODE':
        pose = { ...pose, mode: rest.toUpperCase() === 'NULL' ? 'null' : 'peak' }
        return null
      case 'READ?':
        return cable === null ? '0' : ground.shown(cable, pose).toPrecision(4)
      case 'PROB?': {
        const at = spot(rest)
        return at && ground.isLid(at) ? 'lid' : 'soil'
      }
      default:
        return null
    }
  }
  return { hear }
}

function spot(text: string): Point | null {
  const [x_m, y_m, ...rest] = text.split(',').map(Number)
  const isSpot = rest.length === 0 && [x_m, y_m].every((v) => v !== undefined && Math.abs(v) <= 100_000)
  return isSpot && text.includes(',') ? { x_m: x_m!, y_m: y_m! } : null
}
