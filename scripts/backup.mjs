import { existsSync, renameSync, rmSync, statSync } from 'node:fs'
import { resolve } from 'node:path'
import { dump } from './lib/archive.mjs'
import { withDatabase } from './lib/cluster-at-hand.mjs'
import { giveUp, say } from './lib/plain.mjs'

// npm run backup -- FILE: everything of every property in one file, while the application runs or not.

const wanted = process.argv[2]
if (!wanted) giveUp('Say where to: npm run backup -- field-thread.backup')
const file = resolve(process.env.INIT_CWD ?? '.', wanted)
if (existsSync(file)) giveUp(`${file} is there already. Choose another name, or take it away first.`)
await withDatabase((url) => {
  // Under another name until it is whole: half a backup must not look like one.
  const half = `${file}.half`
  const trouble = dump(url, half)
  if (trouble !== null) {
    rmSync(half, { force: true })
    giveUp(`The backup was not made.\n${trouble}`, 1)
  }
  renameSync(half, file)
  say(`Kept in ${file} (${Math.ceil(statSync(file).size / 1000)} kB). To put it back: npm run restore -- ${file}`)
})
