import * as z from 'zod'
import { OUTPUTS } from '../../cli/output'
import { canonicalJson, propertyFile } from '../../core/formats'
import { procedure } from '../../core/record'

/** JSON Schema of a property file as it may be written: fields with a default may be left out. */
export const siteFileSchema = (): string => canonicalJson(z.toJSONSchema(propertyFile, { io: 'input' }))

/** JSON Schema of a company’s own procedure as its file may be written. */
export const procedureSchema = (): string => canonicalJson(z.toJSONSchema(procedure, { io: 'input' }))

/** The page on the shell with each verb's schema put between its marks. */
export function shellWithSchemas(page: string): string {
  return Object.entries(OUTPUTS).reduce((text, [verb, output]) => {
    const [open, close] = [`<!-- schema:${verb} -->`, `<!-- /schema:${verb} -->`]
    const [before, rest] = text.split(open)
    const after = rest?.split(close)[1]
    if (after === undefined) throw new Error(`shellWithSchemas: the page has no place for ${verb}`)
    return `${before}${open}\n\n\`\`\`json\n${canonicalJson(z.toJSONSchema(output)).trimEnd()}\n\`\`\`\n\n${close}${after}`
  }, page)
}
