import { createServer } from 'node:net'

/** Whether a program may listen on this port of the loopback address. */
export const isFree = (port) =>
  new Promise((done) => {
    const probe = createServer()
    probe.once('error', () => done(false))
    probe.listen({ port, host: '127.0.0.1' }, () => probe.close(() => done(true)))
  })

/** A port that was free a moment ago. */
export const freePort = () =>
  new Promise((done, fail) => {
    const probe = createServer()
    probe.once('error', fail)
    probe.listen({ port: 0, host: '127.0.0.1' }, () => {
      const { port } = probe.address()
      probe.close(() => done(port))
    })
  })
