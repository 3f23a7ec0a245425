import { writeFileSync } from 'node:fs'
import { writeProperty } from '../core/formats'
import { demoProperty } from './quarry-lake'

writeFileSync(new URL('./quarry-lake.json', import.meta.url), writeProperty(demoProperty()))
