import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

export interface Phasor {
  readonly re: number
  readonly im: number
}

/**
 * Runs a deck through Debian's circuit simulator, with more commands of its own where wanted; every output file by
 * its name.
 */
export function simulate(
  deck: string,
  commands: readonly string[],
  outputs: readonly string[],
): Record<string, Buffer> {
  const folder = mkdtempSync(join(tmpdir(), 'thread-deck-'))
  try {
    writeFileSync(
      join(folder, 'deck.cir'),
      deck.replace(/\.end\n$/, `.control\nset numdgt=15\n${commands.join('\n')}\nquit\n.endc\n.end\n`),
    )
    const done = spawnSync('ngspice', ['-b', 'deck.cir'], { cwd: folder, encoding: 'utf8', maxBuffer: 1e9 })
    if (done.error) throw done.error
    return Object.fromEntries(
      outputs.map((name) => {
        try {
          return [name, readFileSync(join(folder, name))]
        } catch {
          throw new Error(`the simulator wrote no ${name}:\n${done.stdout.slice(-1500)}${done.stderr.slice(-1500)}`)
        }
      }),
    )
  } finally {
    rmSync(folder, { recursive: true })
  }
}

/** Node volts of one run, by name. */
export function solveDeck(deck: string): Map<string, Phasor> {
  return readRaw(simulate(deck, ['run', 'write out.raw'], ['out.raw'])['out.raw']!)
}

/** A binary raw file with one point: every `v(node)` or bare node. */
export function readRaw(bytes: Buffer): Map<string, Phasor> {
  const marker = bytes.indexOf('Binary:\n')
  const head = bytes.subarray(0, marker).toString('latin1')
  const isComplex = /^Flags:.*complex/m.test(head)
  const names = [...head.slice(head.indexOf('Variables:')).matchAll(/^\s+(\d+)\s+(\S+)\s+(\S+)/gm)].map((m) => ({
    name: m[2]!,
    kind: m[3]!,
  }))
  const found = new Map<string, Phasor>()
  let at = marker + 8
  for (const { name, kind } of names) {
    const re = bytes.readDoubleLE(at)
    const im = isComplex ? bytes.readDoubleLE(at + 8) : 0
    at += isComplex ? 16 : 8
    if (kind === 'voltage') found.set(/^v\((.*)\)$/.exec(name)?.[1] ?? name, { re, im })
  }
  return found
}
