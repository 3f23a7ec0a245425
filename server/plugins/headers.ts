import { createHash } from 'node:crypto'
import { setResponseHeader, type H3Event } from 'h3'
import { defineNitroPlugin } from 'nitropack/runtime'

/** The sources that the page's own words allow; nothing from elsewhere, no page around it, no script in its text. */
function contentPolicy(inline: readonly string[]): string {
  const hashes = inline.map((text) => ` 'sha256-${createHash('sha256').update(text).digest('base64')}'`).join('')
  return [
    "default-src 'none'",
    `script-src 'self' 'wasm-unsafe-eval'${hashes}`,
    "worker-src 'self' blob:",
    // Styles are put in by the components; they carry no data of anybody's.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    // A meter may stand anywhere on the crew's own network.
    "connect-src 'self' ws: wss:",
    "manifest-src 'self'",
    "form-action 'self'",
    "base-uri 'none'",
    "frame-ancestors 'none'",
  ].join('; ')
}

const INLINE = /<script(?![^>]*\bsrc=)(?![^>]*type="application\/json")[^>]*>([\s\S]*?)<\/script>/g
const inlineScripts = (html: string): string[] => [...html.matchAll(INLINE)].map((m) => m[1]!)

/** What every page is sent with: the few scripts written into its text by the build are named by their hashes. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('render:response', (response, { event }: { event: H3Event }) => {
    const html = typeof response.body === 'string' ? response.body : ''
    setResponseHeader(event, 'content-security-policy', contentPolicy(inlineScripts(html)))
  })
})
