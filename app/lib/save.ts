/** Gives the reader a text as a file to save. */
export function saveText(name: string, text: string, type: string): void {
  const address = URL.createObjectURL(new Blob([text], { type }))
  const link = Object.assign(document.createElement('a'), { href: address, download: name.replace(/[^\p{L}\p{N}.-]+/gu, '-') })
  link.click()
  setTimeout(() => URL.revokeObjectURL(address), 10_000)
}
