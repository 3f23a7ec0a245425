const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/i

/**
 * Whether a request comes from a page of this server, or from no page: a host that is not loopback is a rebound name.
 */
export const isOwnPage = (host: string | undefined | null, origin: string | undefined | null): boolean =>
  LOOPBACK.test(host ?? '') && (origin === undefined || origin === null || origin === `http://${host}`)
