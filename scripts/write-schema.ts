import { readFileSync, writeFileSync } from 'node:fs'
import { shellWithSchemas, siteFileSchema } from './lib/schemas'

// Writes what is generated from the code into docs/; a test says when it has not been run.
const shell = new URL('../docs/shell.md', import.meta.url)
writeFileSync(new URL('../docs/site-file.schema.json', import.meta.url), siteFileSchema())
writeFileSync(shell, shellWithSchemas(readFileSync(shell, 'utf8')))
