/** Quotes: what is refused. They come with what asks for them. */
export const quoteRefusalsEn = {
  no_price: '{where}: the price list has no price for {code}, by the {unit}. Add it; nothing is taken for nothing.',
  no_prices: '{where}: a price list is wanted, as CSV. docs/shell.md shows one.',
  no_price_line:
    '{where}: “{text}” is no line of a price list. Write setting, tax or price, and a setting that there is.',
}
