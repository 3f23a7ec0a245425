import { fork, type ChildProcess } from 'node:child_process'
import type { Ask, Said } from './engine'

/** The engine in a process of its own: it is told the record and the readings only. */
export class Engine {
  /** Most of what a weighing makes is thrown away after it: room for the young saves carrying it along. */
  private readonly child: ChildProcess
  constructor(file: string) {
    this.child = fork(file, { execArgv: ['--max-semi-space-size=64'] })
    this.child.once('exit', (code) => {
      throw new Error(`the engine ended with ${code}`)
    })
  }
  ask(what: Ask): Promise<Said> {
    return new Promise((resolve) => {
      this.child.once('message', (m) => resolve(m as Said))
      this.child.send(what)
    })
  }
  end(): void {
    this.child.removeAllListeners('exit')
    this.child.kill()
  }
}
