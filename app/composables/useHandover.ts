import { handoverOf, type CardSources, type OpenPoint } from '../../core/card'
import { toldOf } from '../../core/procedure'
import { lengthText, ohmsWithUnit } from '../../core/quantity'
import { say } from '../../words'
import { sayThing, sayTitle } from '../../words/procedure'
import { handoverDoc } from '../print/handover'
import type { Paper } from '../print/sheet'
import { useProperty } from '../stores/property'
import { usePrintedPhotos } from './usePrintedPhotos'
import type { usePrinting } from './usePrinting'
import { usePrintWords } from './usePrintWords'
import { useSightingWords } from './useSightings'
import { dayText } from './useSpeaker'

/** Prints the booklet that goes over to the owner. */
export function useHandover(print: ReturnType<typeof usePrinting>['print'], paper: () => Paper) {
  const property = useProperty()
  const units = () => property.site!.settings.units
  const { t, speaker } = usePrintWords(units)
  const printed = usePrintedPhotos()
  useSightingWords()

  const cardSources = (): CardSources => ({
    scene: property.sceneAt(null),
    sceneAt: property.sceneAt,
    past: property.pastBefore(null),
    facts: property.facts!,
  })

  function openText(point: OpenPoint): string {
    switch (point.kind) {
      case 'temporary':
        return t('print.openPoint.temporary', { what: point.what, since: dayText(`${point.since}T12:00:00`) })
      case 'reading': {
        const { controller, label, name, verdict, at } = point
        return t('print.openPoint.reading', {
          label: `${controller}:${label}`,
          name,
          day: dayText(at),
          verdict: t(`verdict.${verdict}`),
        })
      }
      case 'record':
        return say({ ...point.finding, code: `finding.${point.finding.code}` }, speaker.value)
      case 'sighting': {
        const { what, on, at, note } = point.standing.seen
        const thing = sayThing(property.site!, { target: on }, toldOf(property.site!, { target: on }), speaker.value)
        return t('print.openPoint.sighting', {
          what: [t(`sighted.${what}`), note].filter(Boolean).join(', '),
          thing,
          day: dayText(at),
        })
      }
      case 'joints':
        return t('print.openPoint.joints', { box: point.box, count: point.count })
      case 'run': {
        const { run, at } = point
        const { target, procedure, left } = run
        const thing =
          target.kind === 'property'
            ? ''
            : `, ${sayThing(property.site!, { target }, toldOf(property.site!, { target }), speaker.value)}`
        return t('print.openPoint.run', {
          title: `${sayTitle(procedure, speaker.value)}${thing}`,
          day: dayText(at),
          count: left,
        })
      }
    }
  }

  const printHandover = () =>
    print(
      'handover',
      async () => {
        const handover = handoverOf(property.site!, cardSources())
        const photos = await printed(handover.photos)
        return handoverDoc(handover, {
          paper: paper(),
          url: `${location.origin}/p/${property.held!.id}`,
          today: dayText(new Date().toISOString()),
          say: (key, params = {}) => t(key, params),
          day: dayText,
          ohms: ohmsWithUnit,
          length: (length_m) => lengthText(length_m, units()),
          openText,
          photos,
          missing: handover.photos.length - photos.length,
        })
      },
      `${property.site!.about.name} handover`,
    )
  return { printHandover, cardSources }
}
