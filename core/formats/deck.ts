import { LEAST_ohm, partsOf, TURNS_COUPLED, type Complex, type Edit, type Powered } from '../circuit'

/** An element of the deck. A coil with shorted turns is a coupled pair and has the fraction that is shorted. */
interface Card {
  readonly a: number
  readonly b: number
  readonly z: Complex
  readonly shorted: number
}

/**
 * The powered network with its edits as a SPICE deck: nodes by the same names as the solver's answers, the common of
 * the first controller as node 0, reactance as inductance at the network's own frequency. The edits are made on the
 * list of elements, not by the solver. Parts without a way to a source are left out, with a comment for each node.
 */
export function writeDeck(powered: Powered, edits: readonly Edit[], title = powered.site.about.name): string {
  const {
    names,
    sources,
    conditions: { frequency_Hz },
  } = powered
  const { cards, extra } = cardsOf(powered, edits)
  const home = sources[0]
  if (!home) return `* ${title}\n* No controller with a common terminal: nothing to solve.\n.end\n`
  const name = (node: number) =>
    node === home.common ? '0' : node < powered.nodeCount ? names[node]! : `touch_${node - powered.nodeCount + 1}`
  const part = partsOf(powered.nodeCount + extra, [...cards, ...sources.map((s) => ({ a: s.hot, b: s.common }))])
  const live = new Set(sources.map((s) => part[s.common]!))
  const lines = [
    `* ${title}`,
    `* ${frequency_Hz === 0 ? 'direct current' : `${frequency_Hz} Hz, RMS volts`}; ` +
      'node 0 is the common of the first controller.',
  ]
  for (let node = 0; node < powered.nodeCount; node++)
    if (!live.has(part[node]!)) lines.push(`* left out, no way to a source: ${name(node)}`)
  const tied = new Set<number>()
  sources.forEach((s, i) => {
    lines.push(
      `V${i + 1} open_${i + 1} ${name(s.common)} DC ${s.open_V} AC ${s.open_V}`,
      `RS${i + 1} open_${i + 1} ${name(s.hot)} ${s.source_ohm}`,
    )
    // A controller that nothing joins to the first one has its own common for a reference.
    if (!tied.has(part[s.common]!) && i > 0) lines.push(`VT${i + 1} ${name(s.common)} 0 0`)
    tied.add(part[s.common]!)
  })
  cards.forEach((card, i) => {
    if (live.has(part[card.a]!)) lines.push(...written(card, i + 1, name(card.a), name(card.b), frequency_Hz))
  })
  const draws = [...powered.draws, ...edits.filter((e) => e.kind === 'draw')]
  draws.forEach(({ a, b, amps: { re } }, i) => {
    if (live.has(part[a]!) && part[a] === part[b]) lines.push(`I${i + 1} ${name(a)} ${name(b)} DC ${re} AC ${re}`)
  })
  const shown = [...powered.names.keys()]
    .filter((node) => node !== home.common && live.has(part[node]!))
    .map((node) => `v(${name(node)})`)
  lines.push('.options numdgt=15', frequency_Hz === 0 ? '.op' : `.ac lin 1 ${frequency_Hz} ${frequency_Hz}`)
  for (let i = 0; i < shown.length; i += 6)
    lines.push(`.print ${frequency_Hz === 0 ? 'op' : 'ac'} ${shown.slice(i, i + 6).join(' ')}`)
  return `${lines.join('\n')}\n.end\n`
}

/**
 * One element: a resistor, or a winding of resistance and inductance, or the two coupled halves of a shorted winding.
 */
function written({ z, shorted }: Card, n: number, a: string, b: string, hz: number): string[] {
  const henry = (ohm: number) => ohm / (2 * Math.PI * hz)
  if (z.im === 0 || hz === 0) return [`R${n} ${a} ${b} ${z.re * (1 - shorted)}`]
  const [rest, short] = [1 - shorted, shorted]
  const winding = [`R${n} ${a} m${n} ${z.re * rest}`, `L${n} m${n} ${b} ${henry(z.im * rest ** 2)}`]
  if (short === 0) return winding
  return [
    ...winding,
    `RT${n} ${b} t${n} ${z.re * short}`,
    `LT${n} t${n} ${b} ${henry(z.im * short ** 2)}`,
    `K${n} L${n} LT${n} ${TURNS_COUPLED}`,
  ]
}

function cardsOf({ parts, nodeCount, earth }: Powered, edits: readonly Edit[]): { cards: Card[]; extra: number } {
  const now: (Card | null)[] = parts.map((p) =>
    p.of.kind === 'source' ? null : { a: p.a, b: p.b, z: p.z, shorted: 0 },
  )
  const plain = (a: number, b: number, ohm: number): Card => ({
    a,
    b,
    z: { re: Math.max(LEAST_ohm, ohm), im: 0 },
    shorted: 0,
  })
  let extra = 0
  const splitAt = (element: number, along: number): number => {
    const whole = now[element]
    if (!whole) throw new Error(`splitAt: element ${element} is not there`)
    const at = nodeCount + extra++
    now[element] = plain(whole.a, at, whole.z.re * along)
    now.push(plain(at, whole.b, whole.z.re * (1 - along)))
    return at
  }
  for (const edit of edits) {
    switch (edit.kind) {
      case 'draw':
        break
      case 'close':
        now.push(plain(edit.node, edit.hot, 0))
        break
      case 'open':
        now[edit.element] = null
        break
      case 'bridge':
        now.push(plain(edit.a, edit.b, edit.ohm))
        break
      case 'leak':
        now.push(plain(edit.node, earth, edit.ohm))
        break
      case 'touch': {
        const at = splitAt(edit.first, edit.firstAlong)
        now.push(plain(at, edit.second === null ? earth : splitAt(edit.second, edit.secondAlong), edit.ohm))
        break
      }
      default: {
        const card = now[edit.element]
        if (!card) break
        now[edit.element] =
          edit.kind === 'series'
            ? { ...card, z: { re: card.z.re + edit.ohm, im: card.z.im } }
            : edit.kind === 'coil_part'
              ? { ...card, shorted: edit.fraction }
              : edit.kind === 'element'
                ? { ...card, z: edit.z, shorted: 0 }
                : plain(card.a, card.b, 0)
      }
    }
  }
  return { cards: now.filter((card) => card !== null && card.a !== card.b) as Card[], extra }
}
