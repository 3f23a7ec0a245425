/** Gives the reader a file to save. */
export function saveBlob(name: string, blob: Blob): void {
  const address = URL.createObjectURL(blob)
  const link = Object.assign(document.createElement('a'), {
    href: address,
    download: name.replace(/[^\p{L}\p{N}.-]+/gu, '-'),
  })
  link.click()
  setTimeout(() => URL.revokeObjectURL(address), 10_000)
}

/** Gives the reader a text as a file to save. */
export const saveText = (name: string, text: string, type: string): void => saveBlob(name, new Blob([text], { type }))
