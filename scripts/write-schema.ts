import { readFileSync, writeFileSync } from 'node:fs'
import { procedureSchema, shellWithSchemas, siteFileSchema } from './lib/schemas'

// Writes what is generated from the code into docs/; a test says when it has not been run.
const shell = new URL('../docs/shell.md', import.meta.url)
writeFileSync(new URL('../docs/site-file.schema.json', import.meta.url), siteFileSchema())
writeFileSync(new URL('../docs/procedure.schema.json', import.meta.url), procedureSchema())
writeFileSync(shell, shellWithSchemas(readFileSync(shell, 'utf8')))
