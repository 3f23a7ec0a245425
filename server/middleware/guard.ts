import { defineEventHandler, getRequestHeader } from 'h3'
import { refusal } from '../../core/refusal'
import { isOwnPage } from '../utils/own-page'
import { refuse } from '../utils/reply'

/**
 * Without accounts everything on this machine may write here, so requests that another web page sent are refused.
 */
export default defineEventHandler((event) => {
  const header = (name: string) => getRequestHeader(event, name)
  const site = header('sec-fetch-site')
  const foreign =
    !isOwnPage(header('host'), header('origin')) ||
    (site !== undefined && site !== 'same-origin' && site !== 'none' && event.path.startsWith('/api/'))
  return foreign ? refuse(event, 403, [refusal('foreign_page')]) : undefined
})
