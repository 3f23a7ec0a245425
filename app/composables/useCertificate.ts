import { certificateOf } from '../../core/card'
import { toldOf } from '../../core/procedure'
import { ohmsWithUnit, temperatureText } from '../../core/quantity'
import { sayStep } from '../../words/procedure'
import { certificateDoc } from '../print/certificate'
import type { Paper } from '../print/sheet'
import { useProperty } from '../stores/property'
import type { usePrinting } from './usePrinting'
import { usePrintWords } from './usePrintWords'
import { dayText, timeText } from './useSpeaker'

/** Prints the certificate of a commissioning. */
export function useCertificate(print: ReturnType<typeof usePrinting>['print'], paper: () => Paper) {
  const property = useProperty()
  const units = () => property.site!.settings.units
  const { t, speaker } = usePrintWords(units)
  async function printCertificate(jobId: string): Promise<void> {
    const job = property.facts!.jobs[jobId]!
    const certificate = certificateOf(property.site!, property.facts!, jobId, {
      scene: property.sceneAt(job.ground_C, job.coil_C),
      sceneAt: property.sceneAt,
      past: property.pastBefore(jobId),
    })
    if (!certificate) return
    await print(
      jobId,
      () =>
        certificateDoc(certificate, {
          paper: paper(),
          url: `${location.origin}/p/${property.held!.id}/work/procedures/${jobId}`,
          say: (key, params = {}) => t(key, params),
          ohms: ohmsWithUnit,
          when: (at) => `${dayText(at)}, ${timeText(at)}`,
          degrees: (at_C) => temperatureText(at_C, units()),
          stepText: (step) =>
            sayStep(
              property.site!,
              job.follows!.own ?? { id: job.follows!.id, from: null },
              step,
              toldOf(property.site!, step.thing),
              speaker.value,
            ).says,
        }),
      `${certificate.property} ${certificate.controller} certificate`,
    )
  }
  return { printCertificate }
}
