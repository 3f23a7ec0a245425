import { coreFlagsDoc, type FlaggedEnd } from '../print/core-flags'
import { usePathPage } from './usePath'
import { usePrinting } from './usePrinting'
import { usePrintWords } from './usePrintWords'

/** Labels for the decoders of a path, as a PDF: a flag each, that folds around its leads. */
export function usePathLabels() {
  const { site, t } = usePathPage()
  usePrintWords(() => site.value.settings.units)
  const { paper, busy, failed, print } = usePrinting(() => (site.value.settings.market === 'metric' ? 'A4' : 'LETTER'))
  const say = (key: string, params: Record<string, string | number> = {}) => t(key, params)
  return {
    busy,
    failed,
    print: (place: string, flags: FlaggedEnd['flags'], file: string) =>
      print(
        'labels',
        () => coreFlagsDoc(t('twoWire.title'), [{ place, flags }], { paper: paper.value, say }),
        `${file} labels`,
      ),
  }
}
