/** Names written one after the other with commas between. */
export const namesIn = (text: string): string[] =>
  text
    .split(',')
    .map((name) => name.trim().slice(0, 80))
    .filter((name) => name !== '')
    .slice(0, 20)
