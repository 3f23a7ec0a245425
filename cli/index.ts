import { answerTo } from './answer'

const { status, out, err } = await answerTo(process.argv.slice(2))
process.stdout.write(out)
process.stderr.write(err)
process.exitCode = status
