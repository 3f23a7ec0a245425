import { JSONParser, TokenType, type ParsedTokenInfo } from '@streamparser/json'

/** A value of a JSON document with the keys that lead to it. */
export interface JsonPiece {
  readonly path: readonly string[]
  readonly value: unknown
}

/** What is wrong with a text as JSON, or with what it asks to be held in memory at once. */
export class JsonTrouble extends Error {
  constructor(
    readonly code: 'not_json' | 'empty_file' | 'too_large' | 'unknown_field',
    readonly detail: string | number,
  ) {
    super(`${code}: ${detail}`)
  }
}

/**
 * The values at some paths of a JSON text that comes in pieces, each as soon as it is whole; the text itself is never
 * held. The one place that knows the library.
 * @param paths selectors such as `$.site` and `$.readings.*`
 * @param keys what may stand at the top; anything else is refused
 * @param mostBytes the most bytes between two values: no value is larger
 * @throws JsonTrouble
 */
export async function* jsonPieces(
  chunks: AsyncIterable<Uint8Array>,
  paths: readonly string[],
  keys: ReadonlySet<string>,
  mostBytes: number,
): AsyncGenerator<JsonPiece> {
  const parser = new JSONParser({ paths: [...paths], keepStack: false })
  let found: JsonPiece[] = []
  let [depth, line, read, since] = [0, 1, 0, 0]
  let lastText: string | null = null
  const onToken = ({ token, value }: ParsedTokenInfo) => {
    if (token === TokenType.COLON && depth === 1 && lastText !== null && !keys.has(lastText))
      throw new JsonTrouble('unknown_field', lastText)
    lastText = token === TokenType.STRING ? (value as string) : null
    if (token === TokenType.LEFT_BRACE || token === TokenType.LEFT_BRACKET) depth++
    else if (token === TokenType.RIGHT_BRACE || token === TokenType.RIGHT_BRACKET) depth--
  }
  let failed: Error | null = null
  parser.onToken = onToken
  parser.onError = (error) => {
    failed ??= error
  }
  parser.onValue = ({ value, key, stack }) => {
    since = 0
    // The first container has no key of its own; what lies in it does.
    found.push({ path: [...stack.slice(1).map((s) => String(s.key)), String(key)], value })
  }
  const trouble = () => (failed instanceof JsonTrouble ? failed : new JsonTrouble('not_json', line))
  for await (const raw of chunks) {
    const chunk = read === 0 && raw[0] === 0xef && raw[1] === 0xbb && raw[2] === 0xbf ? raw.subarray(3) : raw
    read += chunk.length
    since += chunk.length
    if (since > mostBytes) throw new JsonTrouble('too_large', mostBytes)
    try {
      parser.write(chunk)
    } catch (error) {
      failed ??= error as Error
    }
    if (failed) {
      line += newlinesIn(chunk.subarray(0, offsetIn(failed, chunk.length)))
      throw trouble()
    }
    line += newlinesIn(chunk)
    yield* found
    found = []
  }
  if (read === 0) throw new JsonTrouble('empty_file', '')
  if (!parser.isEnded) {
    try {
      parser.end()
    } catch {
      throw trouble()
    }
    if (failed || !parser.isEnded) throw trouble()
  }
}

const NEWLINE = 10

function newlinesIn(bytes: Uint8Array): number {
  let count = 0
  for (let at = bytes.indexOf(NEWLINE); at >= 0; at = bytes.indexOf(NEWLINE, at + 1)) count++
  return count
}

/** How far into a chunk an error lies, by its own account; its end where it says nothing. */
function offsetIn(error: Error, end: number): number {
  const said = /chunk position "(\d+)"/.exec(error.message)
  return said ? Number(said[1]) : end
}
