/*
 * The service worker: the application opens without a signal once it has been there. It keeps one version whole, its
 * pages, scripts, styles and fonts, and answers from it; the next version is fetched beside it and waits until the page
 * says that nothing is unsent. What the server answers is left alone.
 * `VERSION` and `ASSETS` are written before it by the build.
 */
/* global VERSION, ASSETS */
const SHELL = '/'
const KEPT = `field-thread ${VERSION}`

self.addEventListener('install', (event) => {
  event.waitUntil(
    caches.open(KEPT).then(async (cache) => {
      // What the version before has under the same name is the same: it is not fetched twice.
      for (const path of ASSETS) {
        const known = await caches.match(path, { ignoreVary: true })
        if (known && path !== SHELL && path.startsWith('/_nuxt/')) await cache.put(path, known)
        else await cache.add(new Request(path, { cache: 'reload' }))
      }
    }),
  )
})

self.addEventListener('activate', (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) => Promise.all(names.filter((n) => n !== KEPT).map((n) => caches.delete(n))))
      .then(() => self.clients.claim()),
  )
})

self.addEventListener('message', (event) => {
  if (event.data === 'take over') void self.skipWaiting()
})

const fromCache = async (path) => (await (await caches.open(KEPT)).match(path, { ignoreVary: true })) ?? null

/** A page is the kept shell, whatever its address; without one the network is asked. */
const page = async (request) => (await fromCache(SHELL)) ?? fetch(request)
const asset = async (request, path) => (await fromCache(path)) ?? fetch(request)

self.addEventListener('fetch', (event) => {
  const { request } = event
  const { origin, pathname } = new URL(request.url)
  if (request.method !== 'GET' || origin !== self.location.origin) return
  if (pathname.startsWith('/api/') || pathname === '/service-worker.js') return
  else if (request.mode === 'navigate') event.respondWith(page(request))
  else if (ASSETS.includes(pathname)) event.respondWith(asset(request, pathname))
})
