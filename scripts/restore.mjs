import { existsSync, readFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { replaceWith } from './lib/archive.mjs'
import { withDatabase } from './lib/cluster-at-hand.mjs'
import { CLONE, giveUp, say } from './lib/plain.mjs'
import { lives } from './lib/processes.mjs'
import { prepareDatabase } from './lib/server.mjs'

// npm run restore -- FILE: everything as it was when the file was made. What is there now is kept under another name.

const wanted = process.argv[2]
if (!wanted) giveUp('Say what from: npm run restore -- field-thread.backup')
const file = resolve(process.env.INIT_CWD ?? '.', wanted)
if (!existsSync(file)) giveUp(`There is no ${file}.`)
const notes = join(CLONE, '.data', 'running.json')
const running = existsSync(notes) ? JSON.parse(readFileSync(notes, 'utf8')) : {}
if (!process.env.DATABASE_URL && lives(running.pid, 'start.mjs'))
  giveUp('Field Thread runs. Stop it first (Ctrl-C where it was started).')
await withDatabase((url) => {
  const stamp = new Date().toISOString().replace(/\D/g, '').slice(0, 14)
  const { trouble, keptAs } = replaceWith(url, file, stamp)
  if (trouble) giveUp(`Nothing was put back; what is there stays as it is.\n${trouble}`, 1)
  const behind = prepareDatabase(url, { demo: false })
  if (behind !== null) giveUp(`It was put back, but could not be brought up to date.\n${behind}`, 1)
  say(`Put back from ${file}. What was there before is kept as the database ${keptAs}.`)
})
