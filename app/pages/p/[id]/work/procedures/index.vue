<script setup lang="ts">
import { SHIPPED, targetsOf } from '../../../../../../core/procedure'
import { FAMILIES, type Procedure } from '../../../../../../core/record'
import { sayTitle } from '../../../../../../words/procedure'
import { useOwnWords } from '../../../../../composables/useOwnWords'
import { useRuns } from '../../../../../composables/useRuns'
import { useWorkWords } from '../../../../../composables/useWorkWords'
import { useProperty } from '../../../../../stores/property'

/** Every procedure by its family: what it is for, what to take along, and on how many things here it can be done. */
const route = useRoute()
const property = useProperty()
const { t, speaker } = useWorkWords(() => property.site!.settings.units)
const { procedures, adapt } = useOwnWords()
onMounted(() => procedures.load())
const base = computed(() => `/p/${String(route.params.id)}`)
const find = ref('')
const begins = shallowRef<Procedure | null>(null)
const beginning = ref(false)
const runs = useRuns()
const rows = computed(() =>
  [...SHIPPED, ...procedures.usable].map((procedure) => ({
    procedure,
    title: sayTitle(procedure, speaker.value),
    things: targetsOf(property.site!, procedure).length,
    kit: procedure.kit.map((k) => t(`kitItem.${k}`)).join(', '),
  })),
)
const families = computed(() => {
  const words = find.value.toLowerCase().split(/\s+/).filter(Boolean)
  return FAMILIES.map((family) => ({
    family,
    rows: rows.value.filter(
      (r) => r.procedure.family === family && words.every((w) => r.title.toLowerCase().includes(w)),
    ),
  })).filter((f) => f.rows.length > 0)
})
const underWay = computed(() => [...runs.value.values()].filter((r) => r.left > 0))
function open(procedure: Procedure): void {
  begins.value = procedure
  beginning.value = true
}
</script>

<template>
  <div class="stack page">
    <div class="row title">
      <h1>{{ t('procedures.title') }}</h1>
      <div class="field find">
        <label for="find-procedure" class="sr-only">{{ t('procedures.find') }}</label>
        <TextField id="find-procedure" v-model="find" :placeholder="t('procedures.find')" autocomplete="off" />
      </div>
    </div>
    <p class="quiet">{{ t('procedures.how') }}</p>
    <p>
      <NuxtLink to="/procedures" no-prefetch>{{ t('own.all') }}</NuxtLink>
    </p>
    <section v-if="underWay.length > 0 && find === ''" class="stack family">
      <h2>{{ t('procedures.underWay') }}</h2>
      <RunLink v-for="r in underWay" :key="r.job" :run="r" :base="base" dated />
    </section>
    <p v-if="families.length === 0" class="sheet">{{ t('procedures.noneFound') }}</p>
    <section v-for="f in families" :key="f.family" class="stack family">
      <h2>{{ t(`procedureFamily.${f.family}`) }}</h2>
      <ul class="sheet rows">
        <li v-for="r in f.rows" :key="r.procedure.id">
          <div>
            <strong>{{ r.title }}</strong>
            <span v-if="procedures.byId(r.procedure.id)" class="quiet small">{{ ` ${t('own.here')}` }}</span>
            <p class="quiet small">
              <template v-if="r.kit">{{ t('procedures.kit', { items: r.kit }) }}</template>
              <template v-if="r.procedure.licensed">{{ ` ${t('procedures.licensed')}.` }}</template>
            </p>
          </div>
          <span v-if="r.procedure.on !== 'property'" class="quiet count">{{ t('procedures.things', r.things) }}</span>
          <NuxtLink
            v-if="procedures.byId(r.procedure.id)"
            :to="`/procedures/${r.procedure.id}`"
            no-prefetch
            class="button plain"
          >
            {{ t('own.edit') }}
            <span class="sr-only">{{ r.title }}</span>
          </NuxtLink>
          <AppButton v-else look="plain" @click="adapt(r.procedure)">
            {{ t('own.adapt') }}
            <span class="sr-only">{{ r.title }}</span>
          </AppButton>
          <AppButton :disabled="r.things === 0 || property.viewed !== null" @click="open(r.procedure)">
            {{ t('procedures.begin') }}
            <span class="sr-only">{{ r.title }}</span>
          </AppButton>
        </li>
      </ul>
    </section>
    <BeginWork
      v-if="beginning && begins"
      v-model:visible="beginning"
      :procedure="begins"
      @begun="(job) => navigateTo(`${base}/work/procedures/${job}`)"
    />
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
}
.title {
  justify-content: space-between;
}
.find {
  flex: 0 1 260px;
}
.family {
  gap: 8px;
}
.rows {
  padding: 4px 16px;
}
.rows li {
  display: grid;
  grid-template-columns: 1fr auto auto auto;
  gap: 8px 16px;
  align-items: center;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}
.rows li:last-child {
  border-bottom: 0;
}
.small {
  font-size: 13px;
}
.count {
  font-size: 13px;
  white-space: nowrap;
}
@media (max-width: 759px) {
  .rows li {
    grid-template-columns: 1fr auto auto;
  }
  .rows li > :first-child {
    grid-column: 1 / -1;
  }
  .rows .plain {
    grid-column: 2;
  }
  .rows .button:not(.plain) {
    grid-column: 3;
  }
  .small,
  .count {
    font-size: 15px;
  }
  .find {
    flex: 1 1 100%;
  }
}
</style>
