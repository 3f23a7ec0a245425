<script setup lang="ts">
import { readRegister, readRegisterCsv, registerRows, writeRegisterCsv, type RegisterLine } from '../../../core/formats'
import {
  addressCommands,
  brokenRegister,
  comparedWithRecord,
  giveAddresses,
  orderSheet,
  type OrderLine,
  type ReadBack,
} from '../../../core/path'
import { accepted, refusal, refused } from '../../../core/refusal'
import { getOrThrow, setField, type Device, type DeviceId, type PathAt } from '../../../core/site'
import { sayRefusal } from '../../../words'
import { usePathPage } from '../../composables/usePath'
import { usePathLabels } from '../../composables/usePathLabels'
import { valueOf } from '../../lib/fields'
import { figureIn } from '../../lib/figures'
import { saveText } from '../../lib/save'
import { readWorkbook, saveWorkbook } from '../../lib/spreadsheet'
import type { TableColumn } from '../../lib/table'

/** Who answers to which number: what is wrong, what is ordered, and the list that decoders are programmed by. */
const props = defineProps<{ path: PathAt }>()
const { site, t, speaker, keep, sentences, doing, fixed } = usePathPage()
const labels = usePathLabels()
const { busy, failed } = labels
const known = computed(() => (props.path.system ? { ...props.path, system: props.path.system } : null))
const wrong = computed(() =>
  known.value ? brokenRegister(site.value, known.value).map((r) => sayRefusal(r, speaker.value)) : [],
)
const decoder = (id: DeviceId) => getOrThrow(site.value.devices, id) as Extract<Device, { kind: 'decoder' }>
const bare = computed(() => props.path.decoders.filter((d) => decoder(d.device).address === null).length)
function giveNumbers(): void {
  if (!known.value) return
  doing({ ok: true, value: addressCommands(site.value, known.value, giveAddresses(site.value, known.value).given) })
}

interface Line {
  readonly number: string
  readonly tag: string
  readonly output: string
  readonly box: string
  readonly leads: string
  readonly waters: string
  readonly id: DeviceId
}
const lines = computed((): Line[] => {
  const byTag = new Map(props.path.decoders.map(({ device }) => [decoder(device).tag ?? device, device]))
  return registerRows(site.value, props.path)
    .slice(1)
    .map((cells) => {
      const [number, tag, output, box, , , , leads, waters] = cells.map(String) as [string, string, string, ...string[]]
      return {
        number,
        tag,
        output,
        box: box ?? '',
        leads: leads ?? '',
        waters: waters ?? '',
        id: byTag.get(tag)!,
      }
    })
})
const order = computed(() => orderSheet(site.value, props.path))
const orderColumns = computed<TableColumn<OrderLine>[]>(() => [
  { key: 'count', header: t('twoWire.count'), figure: true },
  { key: 'kind', header: t('twoWire.kind') },
  { key: 'power', header: t('twoWire.power') },
  { key: 'numbers', header: t('twoWire.numbers') },
])
const columns = computed<TableColumn<Line>[]>(() => [
  { key: 'number', header: t('twoWire.number'), figure: true },
  { key: 'decoder', header: t('twoWire.decoder'), sort: (l) => l.tag },
  { key: 'output', header: t('twoWire.output'), figure: true },
  { key: 'box', header: t('twoWire.box'), sort: (l) => l.box },
  { key: 'waters', header: t('twoWire.waters') },
  { key: 'leads', header: t('twoWire.leads') },
  { key: 'serial', header: t('twoWire.serial') },
])
function renumber(id: DeviceId, text: string): void {
  if (!known.value) return
  const number = figureIn(text, 0, 9999)
  if (number === null || !Number.isInteger(number)) return
  const { moreAddresses } = decoder(id)
  doing({
    ok: true,
    value: addressCommands(site.value, known.value, [{ decoder: id, addresses: [number, ...moreAddresses] }]),
  })
}
const keepSerial = (id: DeviceId, text: string) =>
  doing({ ok: true, value: [setField('devices', id, 'serial', text.trim())] })

const name = computed(
  () => `${site.value.about.name} ${getOrThrow(site.value.controllers, props.path.controller).tag} register`,
)
const saveCsv = () => saveText(`${name.value}.csv`, writeRegisterCsv(site.value, props.path), 'text/csv')
const saveXlsx = () =>
  saveWorkbook(name.value, [{ name: t('twoWire.bench'), rows: registerRows(site.value, props.path) }])
const took = ref(0)
/** What a file says that the record does not: taken over only when somebody says so. */
const waiting = shallowRef<{ lines: RegisterLine[]; back: ReadBack } | null>(null)
async function readFile(file: File): Promise<void> {
  took.value = 0
  waiting.value = null
  const path = known.value
  if (!path) return
  const isBook = file.name.toLowerCase().endsWith('.xlsx')
  const table = isBook ? await readWorkbook(file) : null
  if (isBook && !table) return void keep(refused(refusal('not_a_workbook', [file.name])))
  const read = table ? readRegister(table, site.value, path) : readRegisterCsv(await file.text(), site.value, path)
  if (!read.ok) return void keep(read)
  const back = comparedWithRecord(site.value, path, read.value)
  if (back.otherwise.length + back.twice.length > 0) waiting.value = { lines: read.value, back }
  else await takeOver(read.value)
}
async function takeOver(read: readonly RegisterLine[]): Promise<void> {
  if (!known.value) return
  const commands = [
    ...addressCommands(site.value, known.value, read),
    ...read.flatMap(({ decoder: id, serial, power }) => [
      setField('devices', id, 'serial', serial),
      setField('devices', id, 'power', power),
    ]),
  ]
  if (await keep(accepted(commands))) took.value = read.length
  waiting.value = null
}
const tagOf = (id: DeviceId) => decoder(id).tag ?? id
/** A flag for every decoder: its numbers, and where it belongs. */
const flags = () => {
  const by = new Map<DeviceId, Line[]>()
  for (const line of lines.value) by.set(line.id, [...(by.get(line.id) ?? []), line])
  return [...by.values()].map((its) => ({
    here: its.map((l) => l.number).join(' · '),
    there: t('twoWire.label', { box: its[0]!.box, waters: its.map((l) => l.waters).join(', ') }),
  }))
}
const printLabels = () =>
  labels.print(getOrThrow(site.value.controllers, props.path.controller).name, flags(), name.value)
</script>

<template>
  <div class="stack">
    <section class="sheet stack">
      <h2>{{ t('twoWire.wrong') }}</h2>
      <p v-for="w in wrong" :key="w">
        <StateMark state="fault" silent />
        {{ w }}
      </p>
      <p v-if="wrong.length === 0">
        <StateMark state="fits" silent />
        {{ t('twoWire.nothingWrong') }}
      </p>
      <ul v-if="sentences.length > 0" class="fault" role="alert">
        <li v-for="s in sentences" :key="s">{{ s }}</li>
      </ul>
      <div v-if="bare > 0 && !fixed" class="row">
        <AppButton look="primary" @click="giveNumbers">{{ t('twoWire.giveNumbers') }}</AppButton>
      </div>
    </section>
    <section class="sheet">
      <h2>{{ t('twoWire.order') }}</h2>
      <p class="quiet">{{ t('twoWire.orderHow') }}</p>
      <AppTable
        :rows="order"
        :columns="orderColumns"
        :row-key="(l) => `${l.drives} ${l.outputs} ${l.power}`"
        :label="t('twoWire.order')"
      >
        <template #count="{ row: l }">{{ l.count }}</template>
        <template #kind="{ row: l }">
          {{ t('twoWire.outputs', l.outputs) }}{{ l.drives === 'valves' ? '' : `, ${t(`twoWire.drives.${l.drives}`)}` }}
        </template>
        <template #power="{ row: l }">{{ t(`twoWire.powers.${l.power}`) }}</template>
        <template #numbers="{ row: l }">{{ l.addresses.join(', ') }}</template>
      </AppTable>
    </section>
    <PathKinds :path="path" />
    <section class="sheet stack">
      <h2>{{ t('twoWire.bench') }}</h2>
      <p class="quiet">{{ t('twoWire.benchHow') }}</p>
      <div class="row">
        <AppButton @click="saveCsv">{{ t('twoWire.saveCsv') }}</AppButton>
        <AppButton @click="saveXlsx">{{ t('twoWire.saveXlsx') }}</AppButton>
        <FileButton v-if="!fixed" accept=".csv,text/csv,.xlsx" :label="t('twoWire.readFile')" @chosen="readFile" />
        <AppButton :disabled="busy !== null" @click="printLabels">{{ t('twoWire.labels') }}</AppButton>
      </div>
      <p v-if="took > 0" class="fits" role="status">{{ t('twoWire.tookFile', { count: took }) }}</p>
      <div v-if="waiting" class="verdict doubtful stack" role="alert">
        <strong>{{ t('twoWire.readBack.title') }}</strong>
        <p v-for="o in waiting.back.otherwise" :key="o.decoder">
          {{
            t('twoWire.readBack.otherwise', {
              decoder: tagOf(o.decoder),
              record: o.onRecord.join(', '),
              read: o.read.join(', '),
            })
          }}
        </p>
        <p v-for="o in waiting.back.twice" :key="o.address">
          {{ t('twoWire.readBack.twice', { address: o.address, decoders: o.decoders.map(tagOf).join(', ') }) }}
        </p>
        <div class="row">
          <AppButton look="primary" @click="takeOver(waiting.lines)">{{ t('twoWire.readBack.take') }}</AppButton>
          <AppButton @click="waiting = null">{{ t('twoWire.readBack.leave') }}</AppButton>
        </div>
      </div>
      <p v-if="failed" class="fault" role="alert">{{ failed }}</p>
      <AppTable :rows="lines" :columns="columns" :row-key="(l) => `${l.id} ${l.output}`" :label="t('twoWire.bench')">
        <template #number="{ row: l }">
          <TextField
            v-if="l.output === '1' && !fixed"
            class="slim figure"
            inputmode="numeric"
            :model-value="l.number"
            :aria-label="t('twoWire.numberOf', { decoder: l.tag })"
            @change="renumber(l.id, valueOf($event))"
          />
          <span v-else class="figure">{{ l.number }}</span>
        </template>
        <template #decoder="{ row: l }">{{ l.tag }}</template>
        <template #output="{ row: l }">{{ l.output }}</template>
        <template #box="{ row: l }">{{ l.box }}</template>
        <template #waters="{ row: l }">{{ l.waters }}</template>
        <template #leads="{ row: l }">{{ l.leads }}</template>
        <template #serial="{ row: l }">
          <TextField
            v-if="l.output === '1'"
            class="slim"
            :model-value="decoder(l.id).serial"
            :readonly="fixed"
            :aria-label="t('twoWire.serialOf', { decoder: l.tag })"
            @change="keepSerial(l.id, valueOf($event))"
          />
        </template>
      </AppTable>
    </section>
  </div>
</template>

<style scoped>
.slim {
  min-height: 34px;
  padding: 2px 6px;
  min-width: 64px;
  max-width: 150px;
}
.slim.figure {
  max-width: 76px;
}
@media (max-width: 759px) {
  .slim {
    min-height: 48px;
  }
}
</style>
