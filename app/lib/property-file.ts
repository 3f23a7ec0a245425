import { strFromU8, unzipSync } from 'fflate'

/** A property file as it was chosen: its text, and the pictures that ride beside it by their SHA-256. */
export interface ChosenFile {
  readonly text: string
  readonly pictures: ReadonlyMap<string, Blob>
}

/** Unpacks a zip with a property and its pictures; null where there is no property in it. Other entries are left alone. */
export function unpack(bytes: Uint8Array): ChosenFile | null {
  try {
    const files = unzipSync(bytes, {
      filter: (f) => f.name === 'property.json' || /^pictures\/[0-9a-f]{64}$/.test(f.name),
    })
    const property = files['property.json']
    if (!property) return null
    return {
      text: strFromU8(property),
      pictures: new Map(
        Object.entries(files)
          .filter(([name]) => name !== 'property.json')
          .map(([name, data]) => [name.slice('pictures/'.length), new Blob([data.slice().buffer])]),
      ),
    }
  } catch {
    return null
  }
}
