<script setup lang="ts">
import { readStationLines, writeStationList } from '../../../../../core/formats'
import { listCommands, rowsOf, type Cell } from '../../../../../core/plan'
import { sayRefusal } from '../../../../../words'
import { usePlan } from '../../../../composables/usePlan'
import { useSpeaker } from '../../../../composables/useSpeaker'
import { saveText } from '../../../../lib/save'
import { useProperty } from '../../../../stores/property'

const property = useProperty()
const site = computed(() => property.site!)
const units = computed(() => site.value.settings.units)
const { t, speaker } = useSpeaker(() => units.value)
const { keep, sentences } = usePlan(() => speaker.value)
const rows = computed(() => rowsOf(site.value))
const fixed = computed(() => property.viewed !== null)

// The list as text: pasted, looked at, taken in.
const open = ref(rows.value.length === 0)
const text = ref('')
const read = computed(() =>
  text.value.trim() === ''
    ? null
    : readStationLines(
        text.value,
        site.value.settings,
        rows.value.map((r) => r.station),
      ),
)
const understood = computed(() => (read.value?.ok ? read.value.value.rows : []))
const refusedLines = computed(() => (read.value?.ok ? read.value.value.refused : []))
const complaints = computed(() =>
  read.value && !read.value.ok
    ? read.value.refusals.map((r) => sayRefusal(r, speaker.value))
    : refusedLines.value.flatMap(({ cells, refusals }) =>
        refusals.map((r) => `“${cells.join(' ').trim()}”. ${sayRefusal(r, speaker.value)}`),
      ),
)
const area = useTemplateRef<{ focus: () => void }>('area')
const grid = useTemplateRef<{ focusCell: (row: number, cell: Cell) => void }>('grid')
onMounted(() => area.value?.focus())
watch(open, async (is) => {
  if (is) {
    await nextTick()
    area.value?.focus()
  }
})
async function takeIn(): Promise<void> {
  if (understood.value.length === 0 || fixed.value) return
  const [listed, left] = [understood.value, read.value?.ok ? read.value.value.left : '']
  if (!(await keep(listCommands(site.value, listed)))) return
  // What was not understood stays where it was written, to be mended.
  text.value = left
  if (left !== '') return
  open.value = false
  await nextTick()
  grid.value?.focusCell(0, listed.some((r) => r.box !== null) ? 'at_m' : 'box')
}
async function openFile(file: File): Promise<void> {
  text.value = await file.text()
  open.value = true
}
const save = () => saveText(`${site.value.about.name} stations.csv`, writeStationList(site.value), 'text/csv')
</script>

<template>
  <div class="stack">
    <div class="row title">
      <h1>{{ t('plan.title') }}</h1>
      <span class="row">
        <AppButton v-if="!open && !fixed" @click="open = true">{{ t('plan.paste') }}</AppButton>
        <FileButton accept=".csv,.txt,text/csv" :label="t('plan.openCsv')" @chosen="openFile" />
        <AppButton v-if="rows.length > 0" @click="save">{{ t('plan.saveCsv') }}</AppButton>
      </span>
    </div>
    <section v-if="open && !fixed" class="sheet stack">
      <div class="field">
        <label for="list-text">{{ t('plan.listText') }}</label>
        <TextArea
          id="list-text"
          ref="area"
          v-model="text"
          class="area figure"
          rows="7"
          @keydown.ctrl.enter.prevent="takeIn"
          @keydown.meta.enter.prevent="takeIn"
          @keydown.esc="rows.length > 0 && (open = false)"
        />
        <p class="how">{{ t('plan.listHow') }}</p>
      </div>
      <ul v-if="complaints.length > 0" class="wrong" role="alert">
        <li v-for="c in complaints" :key="c">{{ c }}</li>
      </ul>
      <p class="row">
        <AppButton look="primary" :disabled="understood.length === 0" @click="takeIn">
          {{
            understood.length === 0
              ? t('plan.takeInNone')
              : t(refusedLines.length > 0 ? 'plan.takeInOthers' : 'plan.takeIn', understood.length)
          }}
          <kbd>Ctrl Enter</kbd>
        </AppButton>
        <AppButton v-if="rows.length > 0" @click="open = false">{{ t('app.cancel') }}</AppButton>
      </p>
    </section>
    <ul v-if="sentences.length > 0" class="sheet wrong" role="alert">
      <li v-for="s in sentences" :key="s">{{ s }}</li>
    </ul>
    <section v-if="rows.length > 0" class="sheet scroll">
      <StationGrid ref="grid" :site="site" :fixed="fixed" :keep="keep" />
    </section>
    <p v-if="rows.length > 0" class="quiet small">{{ t('plan.keys') }}</p>
    <PlanRuns v-if="rows.length > 0" :site="site" :unit="units.length" :fixed="fixed" />
    <CoilKinds :site="site" :fixed="fixed" />
    <p class="caution">{{ t('app.localCode') }} {{ t('plan.dig') }}</p>
  </div>
</template>

<style scoped>
.title {
  justify-content: space-between;
}
.area {
  min-height: 150px;
  resize: vertical;
}
.wrong {
  color: var(--fault);
  font-weight: 600;
}
.wrong.sheet {
  border-left: 5px solid var(--fault);
}
.scroll {
  overflow-x: auto;
  padding: 8px 16px;
}
.small {
  font-size: 13px;
}
kbd {
  font: 12px var(--figures);
  border: 1px solid currentcolor;
  border-radius: 4px;
  padding: 0 5px;
  opacity: 0.85;
}
@media (max-width: 759px) {
  .small {
    font-size: 15px;
  }
}
</style>
