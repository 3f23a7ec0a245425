/** Light “noon” for the garden, dark “dusk” for the van. */
export type Theme = 'noon' | 'dusk'

const KEY = 'field-thread.theme'

/** The theme chosen on this device, else the system's own. */
export function chosenTheme(): Theme {
  try {
    const kept = localStorage.getItem(KEY)
    if (kept === 'noon' || kept === 'dusk') return kept
  } catch {
    /* a device that keeps nothing follows the system */
  }
  return window.matchMedia('(prefers-color-scheme: dark)').matches ? 'dusk' : 'noon'
}

export function applyTheme(theme: Theme, remember = false): void {
  document.documentElement.dataset.theme = theme
  document
    .querySelector('meta[name=theme-color]')
    ?.setAttribute('content', getComputedStyle(document.documentElement).getPropertyValue('--paper').trim())
  if (!remember) return
  try {
    localStorage.setItem(KEY, theme)
  } catch {
    /* it holds until the page is closed */
  }
}
