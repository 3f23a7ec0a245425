<script setup lang="ts">
import { v7 } from 'uuid'
import { createRecord, entries, lookUp } from '../../../core/site'
import { dayText } from '../../composables/useSpeaker'
import { usePlan } from '../../composables/usePlan'
import { useWorkWords } from '../../composables/useWorkWords'
import { today } from '../../lib/today'
import { useProperty } from '../../stores/property'

/** What was left so for a while, until somebody undoes it. */
const property = useProperty()
const { t, speaker } = useWorkWords(() => property.site!.settings.units)
const { keep, sentences } = usePlan(() => speaker.value)
const [adding, what] = [ref(false), ref('')]
const list = computed(() =>
  entries(property.site!.temporaryStates)
    .sort(([, a], [, b]) => a.since.localeCompare(b.since))
    .map(([id, state]) => ({ id, ...state, box: state.place && lookUp(property.site!.places, state.place)?.tag })),
)
async function add(): Promise<void> {
  const said = what.value.trim().slice(0, 200)
  if (said === '') return
  const kept = await keep({
    ok: true,
    value: [createRecord('temporaryStates', v7(), { what: said, since: today() })],
  })
  if (!kept) return
  what.value = ''
  adding.value = false
}
const undo = (id: string) => keep({ ok: true, value: [{ do: 'remove', in: 'temporaryStates', id }] })
</script>

<template>
  <section class="stack temporary" aria-labelledby="temporary-title">
    <h2 id="temporary-title">{{ t('temporary.title') }}</h2>
    <ul v-if="list.length > 0" class="sheet">
      <li v-for="s in list" :key="s.id" class="row">
        <span>
          <strong>{{ s.what }}</strong>
          <span class="quiet">
            {{ ` · ${s.box ? `${s.box} · ` : ''}${t('temporary.since', { since: dayText(`${s.since}T12:00:00`) })}` }}
          </span>
        </span>
        <AppButton v-if="!property.viewed" @click="undo(s.id)">{{ t('temporary.undo') }}</AppButton>
      </li>
    </ul>
    <form v-if="adding" class="row" @submit.prevent="add">
      <div class="field">
        <label for="temporary-what">{{ t('temporary.what') }}</label>
        <TextField id="temporary-what" v-model="what" maxlength="200" autocomplete="off" autofocus />
      </div>
      <AppButton look="primary" type="submit">{{ t('temporary.keep') }}</AppButton>
      <AppButton look="plain" @click="adding = false">{{ t('app.cancel') }}</AppButton>
    </form>
    <p v-else-if="!property.viewed">
      <AppButton look="plain" @click="adding = true">{{ t('temporary.add') }}</AppButton>
    </p>
    <p v-for="s in sentences" :key="s" class="fault" role="alert">{{ s }}</p>
  </section>
</template>

<style scoped>
.temporary {
  gap: 6px;
}
.temporary li {
  justify-content: space-between;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
.temporary li:last-child {
  border-bottom: 0;
}
.temporary form {
  align-items: end;
}
.temporary .field {
  flex: 1 1 220px;
}
</style>
