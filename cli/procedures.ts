import type * as z from 'zod'
import { sceneOf } from '../core/expect'
import type { Property } from '../core/formats'
import { expectedAt, plainSteps, SHIPPED, targetsOf, testOf, toldOf, unfold, type StepHere } from '../core/procedure'
import type { Procedure, WorkTarget } from '../core/record'
import { accepted, refusal, refused, type Outcome } from '../core/refusal'
import { lookUp, type Site } from '../core/site'
import type { Speaker } from '../words'
import { sayOption, sayStep, sayThing, sayTitle } from '../words/procedure'
import type { Arguments } from './flags'
import type { proceduresOutput } from './output'
import { expectationOut, meterOf } from './verbs'

type Out = z.infer<typeof proceduresOutput>
type StepOut = Out['procedures'][number]['on'][number]['steps'][number]

/** Every procedure, with its steps on the first thing of the property that it suits; or on the things of one tag. */
export function proceduresOf({ site }: Property, flags: Arguments['flags'], speaker: Speaker): Outcome<Out> {
  const { on } = flags
  const scene = sceneOf(site)
  const meter = meterOf(flags)
  const procedures = SHIPPED.map((procedure) => {
    const things = targetsOf(site, procedure)
    const chosen = on === undefined ? things.slice(0, 1) : things.filter((t) => tagsOf(site, t).includes(on))
    return {
      id: procedure.id,
      title: sayTitle(procedure, speaker),
      family: procedure.family,
      licensed: procedure.licensed,
      kit: procedure.kit,
      things: things.length,
      on:
        on === undefined && chosen.length === 0
          ? [{ thing: '', steps: plainSteps(procedure).map((s) => bareStep(site, procedure, s, speaker)) }]
          : chosen.map((target) => ({
              thing: sayThing(site, { target }, toldOf(site, { target }), speaker),
              steps: unfold(site, procedure, target).map((here): StepOut => {
                const test = testOf(site, here)
                const expected = test && expectedAt(scene, test, meter)
                return {
                  ...bareStep(site, procedure, here, speaker),
                  ...(expected ? { expected: expectationOut(scene, expected, speaker) } : {}),
                }
              }),
            })),
    }
  }).filter((p) => on === undefined || p.on.length > 0)
  return procedures.length === 0
    ? refused(refusal('no_such_thing', ['--on'], { tag: on! }))
    : accepted({ verb: 'procedures', property: site.about.name, procedures })
}

function bareStep(site: Site, procedure: Procedure, here: StepHere, speaker: Speaker): StepOut {
  const { step, thing, key } = here
  const { says, why } = sayStep(site, procedure, here, toldOf(site, thing), speaker)
  return {
    key,
    says,
    why,
    hold: step.hold,
    cautions: step.cautions.map((hazard) => ({ hazard, says: speaker.t(`hazard.${hazard}`, {}) })),
    asks: step.does.kind,
    ...(step.does.kind === 'choice' ? { options: step.does.options.map((o) => sayOption(o, speaker)) } : {}),
    ...(step.deed ? { writes: step.deed } : {}),
    ...(step.when.length > 0 ? { after: step.when } : {}),
    ...(step.minutes === undefined ? {} : { minutes: step.minutes }),
  }
}

/** The tags by which a thing is asked for: its own, of a joint its box’s, of a terminal as on the door. */
function tagsOf(site: Site, target: WorkTarget): string[] {
  const { device, place, controller, cable, terminal } = toldOf(site, { target })
  switch (target.kind) {
    case 'property':
      return []
    case 'controller':
      return [controller!.tag]
    case 'terminal': {
      const tag = lookUp(lookUp(site.controllers, target.controller)!.terminals, target.terminal)!.tag
      return [`${controller!.tag}:${tag}`, `${controller!.tag}:${terminal}`]
    }
    case 'coil':
    case 'device':
      return [device!.tag]
    case 'cable':
      return [cable!]
    case 'box':
      return [place!.tag]
    case 'joint':
      return [place!.tag, target.splice]
  }
}

/** The same as lines for a person: each step with its cautions before it, a square where the work waits. */
export const procedureLines = ({ procedures }: Out): string[] =>
  procedures.flatMap((p) => [
    '',
    `${p.title} (${p.things})`,
    ...p.on.flatMap(({ thing, steps }) => [
      ...(thing === '' ? [] : [`  ${thing}`]),
      ...steps.map((s) => `  ${s.hold ? '■' : '·'} ${[...s.cautions.map((c) => `! ${c.says}`), s.says].join(' ')}`),
    ]),
  ])
