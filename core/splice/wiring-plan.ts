import { commandsBetween, runsOf } from '../plan'
import { accepted, type Outcome } from '../refusal'
import { applyBatch, entries, type Command, type Site } from '../site'
import { planBoxCommands } from './box-commands'
import { runPlanCommands } from './run-plan'

/**
 * The whole wiring plan: cores, colours and spares of every run, then the connectors of every box and cabinet; runs
 * once more, since a common that was split has taken a spare. What was made, pinned or lies in the ground stays.
 */
export function wiringPlanCommands(site: Site): Outcome<Command[]> {
  const ready = runs(site)
  const boxes = planBoxCommands(ready, ...entries(ready.places).map(([place]) => place))
  return boxes.ok ? accepted(commandsBetween(site, runs(changed(ready, boxes.value)))) : boxes
}

const runs = (site: Site): Site =>
  entries(site.controllers)
    .flatMap(([c]) => runsOf(site, c))
    .reduce((now, run) => changed(now, runPlanCommands(now, run)), site)

function changed(site: Site, commands: readonly Command[]): Site {
  if (commands.length === 0) return site
  const applied = applyBatch(site, commands)
  if (!applied.ok) throw new Error(`wiringPlanCommands: ${JSON.stringify(applied.refusals)}`)
  return applied.value.site
}
