<script setup lang="ts">
import { targetsOf, toldOf } from '../../../core/procedure'
import { targetKey, type Procedure, type WorkTarget } from '../../../core/record'
import { sayThing, sayTitle } from '../../../words/procedure'
import { useBeginWork } from '../../composables/useBeginWork'
import { useWorkWords } from '../../composables/useWorkWords'
import { authorName, rememberAuthor } from '../../lib/device'
import { namesIn } from '../../lib/names'
import { useProperty } from '../../stores/property'

/** What a piece of work needs to know before its first step: on what, and by whom. */
const props = defineProps<{ procedure: Procedure; target?: WorkTarget | null }>()
const visible = defineModel<boolean>('visible', { required: true })
const emit = defineEmits<{ begun: [job: string] }>()
const property = useProperty()
const { t, speaker } = useWorkWords(() => property.site!.settings.units)
const { begin, underWay } = useBeginWork()
const [author, others, find, bad] = [ref(authorName()), ref(''), ref(''), ref('')]
const all = computed(() =>
  targetsOf(property.site!, props.procedure).map((target) => ({
    target,
    key: targetKey(target),
    says: sayThing(property.site!, { target }, toldOf(property.site!, { target }), speaker.value),
  })),
)
const MOST_SHOWN = 12
const found = computed(() => {
  const words = find.value.toLowerCase().split(/\s+/).filter(Boolean)
  return all.value.filter(({ says }) => words.every((w) => says.toLowerCase().includes(w)))
})
const only = computed(() => props.target ?? (all.value.length === 1 ? all.value[0]!.target : null))
const busy = ref(false)
async function choose(target: WorkTarget): Promise<void> {
  if (busy.value) return
  busy.value = true
  rememberAuthor(author.value.trim().slice(0, 80))
  const job = await begin(props.procedure, target, namesIn(others.value))
  busy.value = false
  if (job === null) bad.value = t('procedures.noController')
  else {
    visible.value = false
    emit('begun', job)
  }
}
</script>

<template>
  <AppDialog v-model:visible="visible" :title="sayTitle(procedure, speaker)">
    <form class="stack" novalidate @submit.prevent="only && choose(only)">
      <div class="field">
        <label for="work-author">{{ t('procedures.name') }}</label>
        <TextField id="work-author" v-model="author" maxlength="80" autocomplete="name" :autofocus="author === ''" />
      </div>
      <div v-if="!underWay" class="field">
        <label for="work-others">{{ t('procedures.others') }}</label>
        <TextField id="work-others" v-model="others" maxlength="400" />
      </div>
      <template v-if="!only">
        <div v-if="all.length > MOST_SHOWN" class="field">
          <label for="work-thing">{{ t('procedures.findThing') }}</label>
          <TextField id="work-thing" v-model="find" autocomplete="off" :autofocus="author !== ''" />
        </div>
        <h3>{{ t('procedures.onWhat') }}</h3>
        <ul class="things">
          <li v-for="o in found.slice(0, MOST_SHOWN)" :key="o.key">
            <AppButton class="thing" @click="choose(o.target)">{{ o.says }}</AppButton>
          </li>
        </ul>
        <p v-if="found.length > MOST_SHOWN" class="quiet">
          {{ t('procedures.moreThings', { count: found.length - MOST_SHOWN }) }}
        </p>
      </template>
      <p v-if="bad" class="fault" role="alert">{{ bad }}</p>
      <div class="row end">
        <AppButton look="plain" @click="visible = false">{{ t('app.cancel') }}</AppButton>
        <AppButton v-if="only" look="primary" type="submit">{{ t('procedures.begin') }}</AppButton>
      </div>
    </form>
  </AppDialog>
</template>

<style scoped>
.things {
  display: grid;
  gap: 6px;
}
.thing {
  width: 100%;
  justify-content: flex-start;
  text-align: left;
}
</style>
