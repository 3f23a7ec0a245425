import { useI18n } from 'vue-i18n'
import { sceneOf } from '../../core/expect'
import { placeOf, isOnRecord } from '../../core/procedure'
import type { Due } from '../../core/quote'
import { partKey, photosOf, type QuotedItem } from '../../core/record'
import { applyBatch, entries, getOrThrow, lookUp } from '../../core/site'
import type { Strip } from '../../core/strip'
import { changedRuns, sameThread, threadOf } from '../lib/quote-strips'
import { signatureSvg } from '../lib/signature'
import type { Mark } from '../lib/strip-marks'
import { quoteDoc, type PrintedItem } from '../print/quote'
import { stripSvg } from '../print/strip-svg'
import { useProperty } from '../stores/property'
import { usePrintedPhotos } from './usePrintedPhotos'
import { useDueNow } from './useRepairs'
import type { usePrinting } from './usePrinting'
import type { SentAndTotals } from './useSentQuotes'
import { dayText } from './useSpeaker'

type Repaired = Extract<QuotedItem['of'], { kind: 'repair' }>

type Told = Parameters<typeof stripSvg>[4]

const STRIP_pt = 420
/** So many photos of each time go into a quote. */
const MOST_PHOTOS = 9

/** Prints the customer’s copy of a quote that was sent: what is done and where, with strips, photos and the answer. */
export function useQuotePrint(printing: ReturnType<typeof usePrinting>) {
  const property = useProperty()
  const { t } = useI18n()
  const printed = usePrintedPhotos()
  const dueNow = useDueNow()
  const day = (at: string) => dayText(at.length > 10 ? at : `${at}T12:00:00`)

  const drawn = (strip: Strip, bad: readonly Mark[], told: Told = []) =>
    stripSvg(strip, bad, STRIP_pt, (place) => lookUp(property.site!.places, place)?.tag ?? '', told)
  /**
   * The thread that a part lies on, with the part crossed, and as it will be by the repair where that changes its way.
   */
  function stripsFor({ where, option }: Repaired, due: readonly Due[]): Pick<PrintedItem, 'strip' | 'after'> {
    const found = threadOf(property.sceneAt(null), where)
    if (found === null) return { strip: null, after: null }
    const strip = drawn(found.strip, found.bad)
    const chosen = due
      .find((d) => partKey(d.where) === partKey(where))
      ?.options.find((o) => o.possible && o.code === option)
    const mended = chosen?.possible ? applyBatch(property.site!, [...chosen.commands]) : null
    const then = mended?.ok ? sameThread(sceneOf(mended.value.site), found) : null
    const others = then ? changedRuns(found.strip, then).map((r) => ({ ...r, text: r.colour ?? '' })) : []
    return { strip, after: then && others.length > 0 ? drawn(then, [], others) : null }
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

  const itemOf = (sent: SentAndTotals, { key, of, says }: QuotedItem, due: readonly Due[]): PrintedItem => ({
    says,
    accepted: sent.turn?.to.kind === 'answered' ? sent.accepted.has(key) : null,
    ...(of.kind === 'repair' && !sent.done.has(key) ? stripsFor(of, due) : { strip: null, after: null }),
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
        const due = await dueNow()
        return quoteDoc(whole, {
          paper: printing.paper.value,
          property: property.site!.about.name,
          contractor: property.site!.about.contractor,
          day: day(quote.at),
          until: quote.until && day(quote.until),
          note: quote.note,
          taxIn: quote.prices.tax,
          items: quote.items.map((i) => itemOf(sent, i, due)),
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
