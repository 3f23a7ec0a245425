/** Larger bodies are not read: a message of five thousand commands and a plan's picture stay under it. */
export const MOST_BYTES = 5_000_000

/** Larger property files are not read; they come in piece by piece, so that their size is no matter of memory. */
export const MOST_FILE_BYTES = 1_000_000_000

/**
 * The most bytes of one piece of a file: its site, or one fact. A site of as many records as one may have stays under
 * it.
 */
export const MOST_PIECE_BYTES = 96_000_000

/** Larger files are not read by what holds them whole, as the shell does. */
export const MOST_WHOLE_BYTES = 256_000_000
