/** Addresses of readings once said `visit` for what is a job now: whoever kept one is led on. */
export default defineNuxtRouteMiddleware((to) => {
  const { visit, ...query } = to.query
  if (visit === undefined || to.query.job !== undefined) return
  return navigateTo({ path: to.path, query: { ...query, job: visit } }, { replace: true })
})
