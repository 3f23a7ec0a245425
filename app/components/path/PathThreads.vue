<script setup lang="ts">
import type { PathStrip } from '../../../core/strip'
import type { ControllerId } from '../../../core/site'
import { usePathPage, usePathRunning } from '../../composables/usePath'
import { usePathStrips } from '../../composables/usePathStrips'
import { useStackScale } from '../../composables/useStackScale'

/** The stations of a two-wire path: along the path past its decoders, then each decoder’s own lead and coil. */
const props = defineProps<{ controller: ControllerId; chosen: string | null }>()
const emit = defineEmits<{ select: [number: string] }>()
const { site, t } = usePathPage()
const { sections, strips, tagOf, nameOf } = usePathStrips(() => props.controller)
const stack = ref<HTMLElement | null>(null)
const { narrow, width, x } = useStackScale(stack, () => Math.max(...strips.value.map((s) => s.length_m)))
const keyOf = (s: PathStrip) => `${s.decoder} ${s.port}`
const { found } = usePathRunning(() => props.controller)
const volts = (s: PathStrip) => found.value?.get(keyOf(s)) ?? null
const beads = (s: PathStrip) => s.beads.map((b) => ({ at_m: b.at_m, own: b.at_m === s.path_m }))
</script>

<template>
  <div ref="stack" class="threads">
    <section v-for="(section, i) in sections" :key="section.key" :aria-label="section.name">
      <StackHead
        :name="section.name"
        :boxes="section.boxes"
        :x="x"
        :width="width"
        :units="site.settings.units"
        :narrow="narrow"
        :column="i === 0 ? t('twoWire.threads.column') : ''"
      />
      <ol>
        <li v-for="strip in section.strips" :key="keyOf(strip)">
          <StackRow
            :tag="String(strip.address ?? '–')"
            :name="nameOf(strip)"
            :narrow="narrow"
            :selected="tagOf(strip) === chosen"
            @select="emit('select', tagOf(strip))"
          >
            <ThreadStrip
              :strip="strip"
              :x="x"
              :width="width"
              :height="30"
              :boxes="section.boxes"
              :beads="beads(strip)"
              :name="narrow ? null : nameOf(strip)"
            />
            <template #reading>
              <span class="quiet">{{ volts(strip) ? `${volts(strip)!.volt_V.toFixed(1)} V` : '–' }}</span>
            </template>
            <template #state>
              <StateMark v-if="volts(strip)?.enough === false" state="fault" />
            </template>
          </StackRow>
        </li>
      </ol>
    </section>
  </div>
</template>

<style scoped>
.threads {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}
</style>
