import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { procedureSchema, shellWithSchemas, siteFileSchema } from './schemas'

const doc = (name: string) => readFileSync(join(__dirname, '../../docs', name), 'utf8')

test('the schemas in docs/ are those of the code (npm run schema writes them)', () => {
  expect(doc('site-file.schema.json')).toBe(siteFileSchema())
  expect(doc('procedure.schema.json')).toBe(procedureSchema())
  expect(doc('shell.md')).toBe(shellWithSchemas(doc('shell.md')))
})
