import { defineEventHandler, getRequestHeader } from 'h3'
import { refusal } from '../../core/refusal'
import { refuse } from '../utils/reply'

const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/i

/**
 * Without accounts everything on this machine may write here, so requests that another web page sent are refused: a
 * host name that is not loopback (a rebound name) and an origin that is not this server's own.
 */
export default defineEventHandler((event) => {
  const host = getRequestHeader(event, 'host') ?? ''
  const origin = getRequestHeader(event, 'origin')
  const site = getRequestHeader(event, 'sec-fetch-site')
  const foreign =
    !LOOPBACK.test(host) ||
    (origin !== undefined && origin !== `http://${host}`) ||
    (site !== undefined && site !== 'same-origin' && site !== 'none' && event.path.startsWith('/api/'))
  return foreign ? refuse(event, 403, [refusal('foreign_page')]) : undefined
})
