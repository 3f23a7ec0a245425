import { defineNitroPlugin } from 'nitropack/runtime'
import { isOwnPage } from '../utils/own-page'

/** Where sockets are listened to at all. */
const LISTENING = new Set(['/meter'])
/** Longer frames end their connection before they are read: a line of a meter has some hundred letters. */
const MOST_FRAME_BYTES = 16_000

/** Upgrades to a socket are answered where one is listened to, and for pages of this server only. */
export default defineNitroPlugin((nitro) => {
  Object.assign(nitro.h3App.options, {
    websocket: {
      serverOptions: { maxPayload: MOST_FRAME_BYTES },
      hooks: {
        upgrade({ url, headers }: { url: string; headers: Headers }) {
          if (!isOwnPage(headers.get('host'), headers.get('origin')))
            throw new Response('Pages of this server only.', { status: 403 })
          if (!LISTENING.has(new URL(url).pathname)) throw new Response('Nobody listens here.', { status: 404 })
        },
      },
    },
  })
})
