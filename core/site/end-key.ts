import type { End } from './end'

/** A text that is equal for equal ends and for no others. */
export function endKey(e: End): string {
  switch (e.kind) {
    case 'core':
      return `core ${e.cable} ${e.core} ${e.stop} ${e.side}`
    case 'port':
      return `port ${e.device} ${e.port}`
    case 'terminal':
      return `terminal ${e.controller} ${e.terminal}`
    case 'earth':
      return `earth ${e.place}`
  }
}
