import type { StepHere, Told } from '../core/procedure'
import type { Procedure, Step, StepOption } from '../core/record'
import { lookUp, type Site } from '../core/site'
import { sayPart } from './part'
import { say, type Speaker } from './say'

const orElse = (known: string | null | undefined, none: string, { t }: Speaker) =>
  known || t(`procedureNone.${none}`, {})

/** An inch as it stands on a stripper, for the lengths that are bared. */
const INCHES: Readonly<Record<number, string>> = { 12: '½', 19: '¾' }

/** The names and figures a step speaks with; what the record does not know is said in words. */
function named(told: Told, joint: string | null, speaker: Speaker): Record<string, string> {
  const { strip_mm } = told
  const { t } = speaker
  const colours = told.conductors.map(
    ({ colour, from, way }) =>
      colour ??
      (from === ''
        ? t('procedureNone.colour', {})
        : t(`procedureNone.${way === 'device' ? 'lead' : 'core'}`, { from })),
  )
  const terminal = (tag: string | null, none: string) =>
    tag === null ? t(`procedureNone.${none}`, {}) : t('procedureNone.terminalOf', { tag })
  return {
    box: orElse(told.place?.tag, 'box', speaker),
    controller: orElse(
      told.controller && `${told.controller.tag} ${told.controller.name}`.trim(),
      'controller',
      speaker,
    ),
    terminal: terminal(told.terminal, 'terminal'),
    common: told.common ?? 'C',
    master: terminal(told.master, 'master'),
    name:
      told.terminal !== null && told.terminal === told.common
        ? t('procedureNone.theCommon', {})
        : orElse(told.name ?? told.device?.tag ?? told.terminal, 'name', speaker),
    device: told.device?.tag ?? '',
    colours: colours.length > 0 ? colours.join(', ') : t('procedureNone.colours', {}),
    connector: told.connector ? t(`connector.${told.connector}`, {}) : t('procedureNone.connector', {}),
    strip: strip_mm === null ? t('procedureNone.strip', {}) : `${strip_mm} mm (${INCHES[strip_mm] ?? ''} in)`,
    conductors:
      told.ends === null ? t('procedureNone.conductors', {}) : t('procedureNone.ends', { count: told.ends }, told.ends),
    joint: joint ?? '',
    cable: orElse(told.cable, 'cable', speaker),
    stations: told.stations === null ? t('procedureNone.figure', {}) : String(told.stations),
    limit: told.limit_A === null ? t('procedureNone.figure', {}) : `${told.limit_A} A`,
    sum: told.sum_A === null ? t('procedureNone.figure', {}) : `${Math.round(told.sum_A * 100) / 100} A`,
    temporary: told.temporary?.what ?? '',
    since: told.temporary?.since ?? '',
    last: orElse(told.lastValve, 'lastValve', speaker),
  }
}

/** The names that sentences of steps may have in braces, ours and a company’s own. */
export const NAMES = [
  ...['box', 'controller', 'terminal', 'common', 'master', 'name', 'device', 'colours', 'connector', 'strip'],
  ...['conductors', 'joint', 'cable', 'stations', 'limit', 'sum', 'temporary', 'since', 'last'],
] as const
const AS_WRITTEN = Object.fromEntries(NAMES.map((name) => [name, `{${name}}`]))

/** What a step says as it is written, its names in braces. */
export const sayWritten = (procedure: Pick<Procedure, 'id' | 'from'>, step: Step, { t }: Speaker): string =>
  step.says ?? t(`procedureStep.${procedure.from ?? procedure.id}_${step.id}`, AS_WRITTEN)

/** A company’s own sentence with its names filled in; a brace that names nothing stays as it is. */
const filled = (text: string, params: Readonly<Record<string, string>>): string =>
  text.replace(/\{(\w+)\}/g, (whole, name: string) => (Object.hasOwn(params, name) ? params[name]! : whole))

/** What a step asks for, of the thing that it is done on. */
export function sayStep(
  site: Site,
  procedure: Pick<Procedure, 'id' | 'from'>,
  { step, thing }: Pick<StepHere, 'step' | 'thing'>,
  told: Told,
  speaker: Speaker,
): { readonly says: string; readonly why: string | null } {
  const of = procedure.from ?? procedure.id
  const { target } = thing
  const params = named(told, target.kind === 'joint' ? sayPart(target, site, speaker) : null, speaker)
  const key = `procedureWhy.${of}_${step.id}`
  const why = step.why === undefined ? speaker.t(key, params) : filled(step.why, params)
  return {
    says: capital(
      step.says === undefined
        ? say({ code: `procedureStep.${of}_${step.id}`, params }, speaker)
        : filled(step.says, params),
    ),
    why: why === key ? null : why,
  }
}

export const sayTitle = ({ id, title }: Pick<Procedure, 'id' | 'title'>, { t }: Speaker): string =>
  title ?? t(`procedureTitle.${id}`, {})

export const sayOption = ({ id, says }: StepOption, { t }: Speaker): string => says ?? t(`procedureChoice.${id}`, {})

/** The thing that a piece of work is done on, as people name it. */
export function sayThing(
  site: Site,
  { target, core, temporary }: StepHere['thing'],
  told: Told,
  speaker: Speaker,
): string {
  if (target.kind === 'joint' && lookUp(site.splices, target.splice)) return capital(sayPart(target, site, speaker))
  const params = named(told, null, speaker)
  const code = core
    ? 'core'
    : temporary
      ? 'temporary'
      : target.kind === 'terminal' && told.name !== null
        ? 'terminalNamed'
        : target.kind
  return capital(speaker.t(`procedureOn.${code}`, params))
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
