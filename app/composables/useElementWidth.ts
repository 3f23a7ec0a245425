/** The width of an element in pixels, following its changes. */
export function useElementWidth(element: Ref<HTMLElement | null>): Ref<number> {
  const width = ref(0)
  let watching: ResizeObserver | null = null
  watch(element, (el) => {
    watching?.disconnect()
    if (!el) return
    width.value = el.clientWidth
    watching = new ResizeObserver(() => {
      width.value = el.clientWidth
    })
    watching.observe(el)
  })
  onBeforeUnmount(() => watching?.disconnect())
  return width
}
