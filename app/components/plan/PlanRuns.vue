<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { newRunCommands, readWay, runCommands, runsOf, sizeCommands, wayCommands, wayText } from '../../../core/plan'
import { gaugeText, inUnit, type LengthUnit } from '../../../core/quantity'
import type { Outcome } from '../../../core/refusal'
import { isPinned } from '../../../core/sizing'
import { entries, getOrThrow, type CableId, type Command, type ControllerId, type Site } from '../../../core/site'
import { usePlan } from '../../composables/usePlan'
import { useSpeaker } from '../../composables/useSpeaker'

/** Runs of cable, each in words that can be changed: its name, its boxes in order with their distance, its size. */
const props = defineProps<{ site: Site; unit: LengthUnit; fixed: boolean }>()
const { t } = useI18n()
const { speaker } = useSpeaker(() => props.site.settings.units)
const { keep, sentences } = usePlan(() => speaker.value)
const show = (at_m: number) => String(Math.round(inUnit(at_m, props.unit) * 10) / 10)
const runs = computed(() =>
  entries(props.site.controllers)
    .flatMap(([controller]) => runsOf(props.site, controller))
    .map(({ cable }) => ({
      id: cable,
      record: getOrThrow(props.site.cables, cable),
      way: wayText(props.site, cable, show),
    })),
)
const byWay = (id: CableId, text: string): Outcome<Command[]> => {
  const way = readWay(text, props.unit)
  return way.ok ? { ok: true, value: wayCommands(props.site, id, way.value) } : way
}
const controllers = computed(() => entries(props.site.controllers))
const next = reactive({
  controller: '' as ControllerId | '',
  tag: '',
  kind: 'multicore' as 'multicore' | 'single',
  size: '',
  way: '',
})
async function lay(): Promise<void> {
  const way = readWay(next.way, props.unit)
  const controller = next.controller || controllers.value[0]?.[0]
  if (!controller) return
  if (await keep(way.ok ? newRunCommands(props.site, controller, next.tag, next.kind, next.size, way.value) : way))
    Object.assign(next, { tag: '', size: '', way: '' })
}
const valueOf = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('plan.runs') }}</h2>
    <p class="quiet small">{{ t('plan.runsHow') }}</p>
    <ul v-if="sentences.length > 0" class="fault" role="alert">
      <li v-for="s in sentences" :key="s">{{ s }}</li>
    </ul>
    <div class="scroll" tabindex="0" role="region" :aria-label="t('plan.runs')">
      <table class="table">
        <thead>
          <tr>
            <th scope="col">{{ t('plan.cell.cable') }}</th>
            <th scope="col">{{ t('plan.kind') }}</th>
            <th scope="col">{{ t('plan.size') }}</th>
            <th scope="col">{{ t('plan.warmer') }}</th>
            <th scope="col" class="way">{{ t('plan.way') }}, {{ unit }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in runs" :key="r.id">
            <td>
              <TextField
                class="slim figure"
                :model-value="r.record.tag ?? ''"
                :readonly="fixed"
                :aria-label="`${t('plan.cell.cable')}, ${r.record.tag ?? r.id}`"
                @change="keep(runCommands(site, r.id, 'tag', valueOf($event)))"
              />
            </td>
            <td>
              {{ t(`plan.kinds.${r.record.kind}`) }}{{ r.record.kind === 'multicore' ? ',' : '' }}
              <span v-if="r.record.kind === 'multicore'" class="quiet">
                {{ t('material.coreCount', Object.keys(r.record.cores).length) }}
              </span>
            </td>
            <td>
              <TextField
                class="slim figure"
                :model-value="r.record.gauge ? gaugeText(r.record.gauge.value) : ''"
                :placeholder="t('plan.unknown')"
                :readonly="fixed"
                :aria-label="`${t('plan.size')}, ${r.record.tag ?? r.id}`"
                @change="
                  keep(sizeCommands(site, r.id, valueOf($event), r.record.gauge === null || isPinned(r.record.gauge)))
                "
              />
            </td>
            <td>
              <TextField
                class="slim figure narrow"
                :model-value="String(r.record.warmer_K)"
                inputmode="decimal"
                :readonly="fixed"
                :aria-label="`${t('plan.warmer')}, ${r.record.tag ?? r.id}`"
                @change="keep(runCommands(site, r.id, 'warmer_K', valueOf($event)))"
              />
            </td>
            <td class="way">
              <TextField
                class="slim figure"
                :model-value="r.way"
                :readonly="fixed"
                :aria-label="`${t('plan.way')}, ${r.record.tag ?? r.id}`"
                @change="keep(byWay(r.id, valueOf($event)))"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <form v-if="!fixed && controllers.length > 0" class="row lay" @submit.prevent="lay">
      <strong>{{ t('plan.newRun') }}</strong>
      <select
        v-if="controllers.length > 1"
        v-model="next.controller"
        class="input slim"
        :aria-label="t('test.controller')"
      >
        <option value="">{{ controllers[0]![1].name }}</option>
        <option v-for="[id, c] in controllers.slice(1)" :key="id" :value="id">{{ c.name }}</option>
      </select>
      <input
        v-model="next.tag"
        class="input slim figure narrow"
        :placeholder="t('plan.cell.cable')"
        :aria-label="`${t('plan.newRun')}: ${t('plan.cell.cable')}`"
      />
      <select v-model="next.kind" class="input slim" :aria-label="`${t('plan.newRun')}: ${t('plan.kind')}`">
        <option value="multicore">{{ t('plan.kinds.multicore') }}</option>
        <option value="single">{{ t('plan.kinds.single') }}</option>
      </select>
      <input
        v-model="next.size"
        class="input slim figure narrow"
        :placeholder="t('plan.size')"
        :aria-label="`${t('plan.newRun')}: ${t('plan.size')}`"
      />
      <input
        v-model="next.way"
        class="input slim figure grow"
        placeholder="B1 30, B2 55"
        :aria-label="`${t('plan.newRun')}: ${t('plan.way')}`"
      />
      <button class="button" :disabled="next.tag.trim() === '' || next.way.trim() === ''">{{ t('plan.lay') }}</button>
    </form>
  </section>
</template>

<style scoped>
.slim {
  min-height: 34px;
  padding: 2px 8px;
  min-width: 84px;
}
select.slim {
  width: auto;
}
.narrow {
  width: 76px;
  min-width: 60px;
}
.grow {
  flex: 1 1 240px;
  width: auto;
}
.scroll {
  overflow-x: auto;
}
.way {
  width: 50%;
  min-width: 260px;
  text-align: left !important;
}
.table td {
  vertical-align: middle;
}
.table td:first-child .slim {
  width: 84px;
}
.lay {
  gap: 8px;
}
.small {
  font-size: 13px;
}
@media (max-width: 759px) {
  .slim {
    min-height: 48px;
  }
  .small {
    font-size: 15px;
  }
}
</style>
