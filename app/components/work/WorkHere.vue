<script setup lang="ts">
import { proceduresOn } from '../../../core/procedure'
import type { WorkTarget } from '../../../core/record'
import { useWorkWords } from '../../composables/useWorkWords'
import { useProcedures } from '../../stores/procedures'
import { useProperty } from '../../stores/property'

/** Every procedure that suits one thing of the property. */
const props = defineProps<{ target: WorkTarget }>()
const property = useProperty()
const { t } = useWorkWords(() => property.site!.settings.units)
const own = useProcedures()
onMounted(() => own.load())
const procedures = computed(() => proceduresOn(property.site!, props.target, own.usable))
</script>

<template>
  <section v-if="procedures.length > 0 && !property.viewed" class="sheet stack">
    <h2>{{ t('procedures.here') }}</h2>
    <div class="row">
      <WorkButton v-for="p in procedures" :key="p.id" :target="target" :procedure="p" />
    </div>
  </section>
</template>
