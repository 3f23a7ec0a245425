import { useI18n } from 'vue-i18n'
import { placeOf, isOnRecord, controllerFor } from '../../core/procedure'
import { photosOf, targetOfPart, type Part, type QuotedItem } from '../../core/record'
import { entries, getOrThrow, lookUp } from '../../core/site'
import { sectionsOf } from '../../core/strip'
import { signatureSvg } from '../lib/signature'
import { marksOn } from '../lib/strip-marks'
import { quoteDoc, type PrintedItem } from '../print/quote'
import { stripSvg } from '../print/strip-svg'
import { useProperty } from '../stores/property'
import { usePrintedPhotos } from './usePrintedPhotos'
import type { usePrinting } from './usePrinting'
import type { SentAndTotals } from './useSentQuotes'
import { dayText } from './useSpeaker'

const STRIP_pt = 420
/** So many photos of each time go into a quote. */
const MOST_PHOTOS = 9

/** Prints the customer’s copy of a quote that was sent: what is done and where, with strips, photos and the answer. */
export function useQuotePrint(printing: ReturnType<typeof usePrinting>) {
  const property = useProperty()
  const { t } = useI18n()
  const printed = usePrintedPhotos()
  const day = (at: string) => dayText(at.length > 10 ? at : `${at}T12:00:00`)

  /** The thread that a part lies on, with the part crossed; null of one that lies on none. */
  function stripFor(where: Part): string | null {
    const site = property.site!
    const target = targetOfPart(where)
    const controller = isOnRecord(site, target) ? controllerFor(site, target) : null
    if (controller === null) return null
    const { network, hanging } = property.sceneAt(null)
    const stations = Object.values(site.stations).filter((s) => s.controller === controller)
    const found = sectionsOf(
      site,
      network.wiring,
      controller,
      [...new Set(stations.map((s) => s.terminal))],
      (terminal) => hanging(controller).get(terminal)?.coils ?? [],
    )
    for (const { strips, common } of found)
      for (const strip of [...strips, ...(common ? [common] : [])]) {
        const bad = marksOn(site, strip, [{ where, p: 1 }])
        if (bad.length > 0) return stripSvg(strip, bad, STRIP_pt, (place) => lookUp(site.places, place)?.tag ?? '')
      }
    return null
  }

  /** Photos at the places of the quote, those of before the work and those of after it. */
  async function photosFor({ quote, done }: SentAndTotals) {
    const site = property.site!
    const tags = new Set(quote.lines.flatMap((l) => l.place ?? []))
    const places = new Set(entries(site.places).flatMap(([id, p]) => (tags.has(p.tag) ? [id] : [])))
    const worked = Math.min(...[...done.values()].map((w) => Date.parse(w.at)))
    const shown = photosOf(property.facts!).flatMap((photo) => {
      const { on, at } = photo.photo
      const place = isOnRecord(site, on) ? placeOf(site, on) : null
      if (place === null || !places.has(place)) return []
      return [{ shown: photo, tag: getOrThrow(site.places, place).tag, isAfter: Date.parse(at) >= worked }]
    })
    return Promise.all(
      [false, true].map((after) => printed(shown.filter((s) => s.isAfter === after).slice(0, MOST_PHOTOS))),
    )
  }

  const itemOf = (sent: SentAndTotals, { key, of, says }: QuotedItem): PrintedItem => ({
    says,
    accepted: sent.turn?.to.kind === 'answered' ? sent.accepted.has(key) : null,
    strip: of.kind === 'repair' && !sent.done.has(key) ? stripFor(of.where) : null,
  })

  function answerOf({ turn }: SentAndTotals) {
    if (turn?.to.kind !== 'answered') return null
    const { name, accepted, signature } = turn.to
    const state = accepted.length > 0 ? 'accepted' : 'declined'
    return {
      says: t(`sent.state.${state}`, { name, day: day(turn.at) }),
      signature: signature && signatureSvg(signature),
    }
  }

  const printSent = (sent: SentAndTotals) =>
    printing.print(
      sent.id,
      async () => {
        const [before = [], after = []] = await photosFor(sent)
        const { quote, whole, agreed } = sent
        return quoteDoc(whole, {
          paper: printing.paper.value,
          property: property.site!.about.name,
          contractor: property.site!.about.contractor,
          day: day(quote.at),
          until: quote.until && day(quote.until),
          note: quote.note,
          taxIn: quote.prices.tax,
          items: quote.items.map((i) => itemOf(sent, i)),
          agreed: agreed && agreed.total !== whole.total ? agreed.total : null,
          answer: answerOf(sent),
          before,
          after,
          say: (key, params = {}) => t(key, params),
        })
      },
      `${property.site!.about.name} quote ${sent.quote.at.slice(0, 10)}`,
    )
  return { printSent }
}
