<script setup lang="ts">
import { boxTags, cabinetCard, jointList } from '../../../../../core/card'
import { runOf } from '../../../../../core/procedure'
import { ohmsWithUnit } from '../../../../../core/quantity'
import { jobsInOrder } from '../../../../../core/record'
import { byTag, entries, type ControllerId } from '../../../../../core/site'
import { connectorCounts } from '../../../../../core/takeoff'
import { useCertificate } from '../../../../composables/useCertificate'
import { useDoorSheet } from '../../../../composables/useDoorSheet'
import { useHandover } from '../../../../composables/useHandover'
import { usePrinting } from '../../../../composables/usePrinting'
import { usePrintWords } from '../../../../composables/usePrintWords'
import { dayText } from '../../../../composables/useSpeaker'
import { useWiringWords } from '../../../../composables/useWiringWords'
import { boxTagsDoc } from '../../../../print/box-tags'
import { cabinetCardDoc } from '../../../../print/cabinet-card'
import { jointListDoc } from '../../../../print/joint-list'
import { terminalLabelsDoc } from '../../../../print/terminal-labels'
import { useProperty } from '../../../../stores/property'

/** What is printed for a property: the card on the door, tags, labels, the joint list, certificates. */
const property = useProperty()
const units = () => property.site!.settings.units
useWiringWords(units)
const { t } = usePrintWords(units)
const { paper, papers, busy, failed, print } = usePrinting(() =>
  property.site!.settings.market === 'metric' ? 'A4' : 'LETTER',
)
const { printCertificate } = useCertificate(print, () => paper.value)
const { sheetContent } = useDoorSheet()
const { printHandover, cardSources } = useHandover(print, () => paper.value)
const name = computed(() => property.site!.about.name)
const home = () => `${location.origin}/p/${property.held!.id}`
const say = (key: string, params: Record<string, string | number> = {}) => t(key, params)

const controllers = computed(() => entries(property.site!.controllers).sort(([, a], [, b]) => byTag(a.tag, b.tag)))
const cardOf = (controller: ControllerId) => cabinetCard(property.site!, controller, cardSources())

const printCard = (controller: ControllerId, called: string) =>
  print(
    `card ${controller}`,
    () =>
      cabinetCardDoc(cardOf(controller), {
        paper: paper.value,
        url: `${home()}?controller=${controller}`,
        today: dayText(new Date().toISOString()),
        say,
        ohms: ohmsWithUnit,
        day: dayText,
        programs: sheetContent(controller),
      }),
    `${name.value} ${called} card`,
  )
const printTags = () =>
  print(
    'tags',
    () =>
      boxTagsDoc(boxTags(property.site!), {
        paper: paper.value,
        urlOf: ({ place }) => `${home()}/boxes/${place}`,
        say,
        property: name.value,
      }),
    `${name.value} box tags`,
  )
const printLabels = () =>
  print(
    'labels',
    () =>
      terminalLabelsDoc(
        controllers.value.map(([id]) => cardOf(id)),
        { paper: paper.value, say },
      ),
    `${name.value} labels`,
  )
/** Connectors with their reserve, those of one kind together. */
const connectors = computed(() => {
  const counts = new Map<string, number>()
  for (const c of connectorCounts(property.site!))
    counts.set(c.connector, (counts.get(c.connector) ?? 0) + c.withReserve)
  return [...counts].map(([kind, count]) => ({ kind, count }))
})
const printJoints = () =>
  print(
    'joints',
    () =>
      jointListDoc(jointList(property.site!), connectors.value, {
        paper: paper.value,
        say,
        day: dayText,
        property: name.value,
      }),
    `${name.value} joints`,
  )
const certificates = computed(() =>
  jobsInOrder(property.facts!, 'procedure').flatMap((id) => {
    const run = runOf(property.site!, property.facts!, id)
    const job = property.facts!.jobs[id]!
    return run && (run.procedure.from ?? run.procedure.id) === 'commission'
      ? [{ id, name: property.site!.controllers[job.controller]!.name, day: dayText(job.at) }]
      : []
  }),
)
</script>

<template>
  <div class="stack page">
    <div class="row title">
      <h1>{{ t('prints.title') }}</h1>
      <PickRadio
        v-model="paper"
        :label="t('prints.paper')"
        :options="papers.map((p) => ({ value: p, label: t(`prints.papers.${p}`) }))"
      />
    </div>
    <p class="quiet">{{ t('prints.how') }}</p>
    <p v-if="failed" class="fault" role="alert">{{ t('prints.failed', { why: failed }) }}</p>
    <p v-if="controllers.length === 0" class="sheet">{{ t('prints.noController') }}</p>
    <ul v-else class="sheet rows">
      <PrintRow
        v-for="[id, c] in controllers"
        :key="id"
        :what="t('prints.cabinet', { name: c.name })"
        :how="t('prints.cabinetHow')"
        :busy="busy === `card ${id}`"
        @make="printCard(id, c.name)"
      />
      <PrintRow :what="t('prints.tags')" :how="t('prints.tagsHow')" :busy="busy === 'tags'" @make="printTags" />
      <PrintRow :what="t('prints.labels')" :how="t('prints.labelsHow')" :busy="busy === 'labels'" @make="printLabels" />
      <PrintRow :what="t('prints.joints')" :how="t('prints.jointsHow')" :busy="busy === 'joints'" @make="printJoints" />
      <PrintRow
        :what="t('prints.handover')"
        :how="t('prints.handoverHow')"
        :busy="busy === 'handover'"
        @make="printHandover"
      />
      <PrintRow
        v-for="c in certificates"
        :key="c.id"
        :what="t('prints.certificate', { name: c.name, day: c.day })"
        :how="t('prints.certificateHow')"
        :busy="busy === c.id"
        @make="printCertificate(c.id)"
      />
    </ul>
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
}
.title {
  justify-content: space-between;
}
.rows {
  padding: 4px 16px;
}
</style>
