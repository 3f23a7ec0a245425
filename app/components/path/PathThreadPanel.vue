<script setup lang="ts">
import type { ControllerId } from '../../../core/site'
import { usePathAlong, usePathPage } from '../../composables/usePath'
import { usePathStrips } from '../../composables/usePathStrips'

/** The station of a path that is chosen, worked out beside the page. */
const props = defineProps<{ controller: ControllerId; chosen: string }>()
const { t } = usePathPage()
const { strips, tagOf, nameOf } = usePathStrips(() => props.controller)
const strip = computed(() => strips.value.find((s) => tagOf(s) === props.chosen) ?? null)
const { found, behind } = usePathAlong(
  () => props.controller,
  () => strip.value && { decoder: strip.value.decoder, port: strip.value.port },
)
</script>

<template>
  <PathThreadDetail
    v-if="strip && found?.decoder === strip.decoder"
    :controller="controller"
    :along="found"
    :strip="strip"
    :name="nameOf(strip)"
  />
  <p v-else-if="behind" class="quiet" role="status">{{ t('twoWire.working') }}</p>
  <p v-else class="quiet">{{ t('twoWire.sized.cannot') }}</p>
</template>
