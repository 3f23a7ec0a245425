/** What a box, a cable or a controller is called in a list: by its tag and its name, said once where they are the same. */
export const tagAndName = ({ tag, name }: { readonly tag: string | null; readonly name: string }): string =>
  [...new Set([tag, name])].filter(Boolean).join(' ')
