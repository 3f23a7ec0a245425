/**
 * Insulation colours as they look in a cable, by the word people record. Only for drawing: the record keeps the word.
 */
const SHADES: Readonly<Record<string, string>> = {
  white: '#ffffff',
  black: '#20201f',
  red: '#c3261d',
  orange: '#dd7a1e',
  yellow: '#e0bd1f',
  green: '#2e7d3f',
  blue: '#2153a8',
  violet: '#74479c',
  purple: '#74479c',
  brown: '#7a4a24',
  grey: '#8f969b',
  gray: '#8f969b',
  pink: '#dd92a8',
  turquoise: '#2fa7a5',
  tan: '#c9a777',
  beige: '#d9c7a0',
  pale: '#efe8d6',
}

/** A core's main colour and its stripe, `red/white`; grey where the word is not a colour or none is on record. */
export function shadesOf(colour: string | null): {
  readonly main: string
  readonly stripe: string | null
  readonly known: boolean
} {
  const [main, stripe] = (colour ?? '').toLowerCase().split(/[/ -]+/)
  const shade = main ? SHADES[main] : undefined
  return { main: shade ?? '#b9b4a8', stripe: (stripe && SHADES[stripe]) || null, known: shade !== undefined }
}
