/** Larger files and bodies are not read: a property of a thousand stations with twenty years of sweeps stays under it. */
export const MOST_BYTES = 5_000_000
