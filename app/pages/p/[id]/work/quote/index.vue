<script setup lang="ts">
import { v7 } from 'uuid'
import { writeQuoteCsv } from '../../../../../../core/formats'
import { pricesFor } from '../../../../../../core/quote'
import { sayRefusal } from '../../../../../../words'
import { sayPart } from '../../../../../../words/part'
import { sayRepair, sayWhyNot } from '../../../../../../words/repair'
import { usePrinting } from '../../../../../composables/usePrinting'
import { useQuote } from '../../../../../composables/useQuote'
import { useQuotePrint } from '../../../../../composables/useQuotePrint'
import { useSentQuotes, type SentAndTotals } from '../../../../../composables/useSentQuotes'
import { useSightings } from '../../../../../composables/useSightings'
import { saveText } from '../../../../../lib/save'

/**
 * Quotes: what is known to be bad and what was found, as lines by the company’s own prices; and those that were sent.
 */
const making = useQuote()
const { property, t, speaker, draft, list, parts, wrong, quote } = making
const { all: sightings, nameOf } = useSightings()
const sent = useSentQuotes()
const printing = usePrinting(() => (property.site!.settings.market === 'metric' ? 'A4' : 'LETTER'))
const { printSent } = useQuotePrint(printing)
const route = useRoute()

const name = computed(() => property.site!.about.name)
const fixed = computed(() => property.viewed !== null)
const open = computed(() =>
  // Parts that a hunt named stand among the repairs.
  sightings.value.filter((s) => s.seen.part === undefined && (s.state === 'open' || s.state === 'quoted')),
)
const prices = computed(() => (list.value?.prices ?? []).map((p) => ({ value: p.code, label: p.name })))
/** A line begins with a part where the list has any: the call-out is the whole quote’s. */
const add = (sighting: string | null) => {
  const all = list.value!.prices
  const { code } = all.find((p) => p.unit === 'piece') ?? all[0]!
  draft.value.lines.push({ id: v7(), sighting, code, quantity: '1' })
}
const linesOf = (sighting: string | null) => draft.value.lines.filter((l) => l.sighting === sighting)
const takeOff = (id: string) => (draft.value.lines = draft.value.lines.filter((l) => l.id !== id))
const unitOf = (code: string) => t(`quotes.units.${making.priceOf(code)?.unit ?? 'piece'}`)
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
const seenText = (id: string) => {
  const s = open.value.find((o) => o.id === id)
  return s ? [t(`sighted.${s.seen.what}`), nameOf(s.seen.on), s.seen.note].filter(Boolean).join(' · ') : ''
}
const items = computed(() =>
  making.items({
    repair: (where, code) =>
      `${capital(sayPart(where, property.site!, speaker.value))}: ${sayRepair(code, speaker.value)}`,
    sighting: seenText,
  }),
)

const [until, note] = [ref(''), ref('')]
/** Sends it as it is now; what was written for it is used up. */
async function send(): Promise<void> {
  if (!quote.value?.ok || items.value.length === 0) return
  const lines = [...making.lines.value]
  await sent.send({
    items: items.value,
    lines,
    prices: pricesFor(lines, list.value!),
    until: until.value === '' ? null : until.value,
    note: note.value.trim(),
  })
  // What is sent is quoted; what was chosen for it is used up.
  draft.value = { repairs: {}, lines: [] }
  ;[until.value, note.value] = ['', '']
}
const saveSent = (one: SentAndTotals) =>
  saveText(
    `${name.value} ${one.agreed ? 'invoice' : 'quote'} ${one.quote.at.slice(0, 10)}.csv`,
    writeQuoteCsv(one.agreed ?? one.whole),
    'text/csv',
  )
const orderAt = (one: SentAndTotals) => navigateTo(`/p/${String(route.params.id)}/work/quote/${one.id}`)
</script>

<template>
  <div class="stack page">
    <h1>{{ t('quotes.title') }}</h1>
    <p class="quiet">{{ t('quotes.how') }}</p>
    <PriceListSheet
      :list="list"
      :rows="list ? making.listRows : making.emptyRows"
      :agreed="making.agreed.value"
      :refusals="making.refusals.value"
      :speaker="speaker"
      @take="making.take"
    />
    <section class="sheet stack">
      <h2>{{ t('quotes.known') }}</h2>
      <p v-if="!making.isWhole.value" class="quiet">{{ t('quotes.working') }}</p>
      <p v-else-if="parts.length === 0" class="quiet">{{ t('quotes.noneKnown') }}</p>
      <div v-for="(p, i) in parts" :key="p.key" class="due">
        <span>
          <strong>{{ capital(sayPart(p.where, property.site!, speaker)) }}</strong>
          <span v-if="p.isQuoted" class="quiet already">{{ t('quotes.already') }}</span>
        </span>
        <PickOne
          v-if="p.possible.length > 0"
          :id="`due-${i}`"
          :model-value="p.chosen?.code ?? ''"
          :disabled="fixed"
          :aria-label="capital(sayPart(p.where, property.site!, speaker))"
          :options="[
            { value: '', label: t('quotes.not') },
            ...p.possible.map((o) => ({ value: o.code as string, label: sayRepair(o.code, speaker) })),
          ]"
          @update:model-value="making.choose(p.key, $event)"
        />
        <span v-else-if="p.options[0] && !p.options[0].possible" class="quiet">
          {{ t('quotes.impossible', { why: sayWhyNot(p.options[0].why, speaker) }) }}
        </span>
      </div>
      <template v-if="making.taken.value.length > 0">
        <TickBox :model-value="making.isTuned.value" :disabled="fixed" @update:model-value="making.tune($event)">
          {{ t('quotes.tuned') }}
        </TickBox>
        <ul class="quiet">
          <li v-for="w in making.taken.value" :key="w.code">
            {{
              t(
                'quotes.took',
                {
                  repair: sayRepair(w.code as never, speaker),
                  count: w.count,
                  taken: Math.round(w.taken_min / w.count),
                  usual: Math.round(w.usual_min / w.count),
                },
                w.count,
              )
            }}
          </li>
        </ul>
      </template>
    </section>
    <section v-if="list && list.prices.length > 0" class="sheet stack">
      <h2>{{ t('quotes.found') }}</h2>
      <div v-for="s in [...open.map((o) => o.id), null]" :key="s ?? 'further'" class="stack found">
        <p v-if="s !== null" class="row">
          <strong>{{ seenText(s) }}</strong>
          <AppButton v-if="!fixed" look="plain" @click="add(s)">{{ t('quotes.finding') }}</AppButton>
        </p>
        <div v-for="l in linesOf(s)" :key="l.id" class="row line">
          <PickOne :id="`price-${l.id}`" v-model="l.code" :label="t('quotes.price')" :options="prices" />
          <div class="field">
            <label :for="`much-${l.id}`">{{ t('quotes.quantity', { unit: unitOf(l.code) }) }}</label>
            <TextField :id="`much-${l.id}`" v-model="l.quantity" class="input figure" inputmode="decimal" />
          </div>
          <AppButton look="plain" @click="takeOff(l.id)">{{ t('quotes.off') }}</AppButton>
        </div>
        <p v-if="s === null && !fixed" class="row">
          <AppButton @click="add(null)">{{ t('quotes.further') }}</AppButton>
        </p>
      </div>
      <ul v-if="wrong.length > 0" class="fault" role="alert">
        <li v-for="l in wrong" :key="l.id">
          {{ t('quotes.wrongQuantity', { price: making.priceOf(l.code)?.name ?? l.code }) }}
        </li>
      </ul>
    </section>
    <section v-if="list" class="sheet stack">
      <h2>{{ t('quotes.total') }}</h2>
      <p v-if="!quote" class="quiet">
        {{ t(!making.isWhole.value ? 'quotes.working' : wrong.length > 0 ? 'quotes.mend' : 'quotes.nothing') }}
      </p>
      <ul v-else-if="!quote.ok" class="fault" role="alert">
        <li v-for="(r, i) in quote.refusals" :key="i">{{ sayRefusal(r, speaker) }}</li>
      </ul>
      <template v-else>
        <QuoteTotals :quote="quote.value" :tax-in="list.tax" />
        <form v-if="!fixed && items.length > 0" class="stack" @submit.prevent="send">
          <div class="row line">
            <div class="field">
              <label for="until">{{ t('sent.untilLabel') }}</label>
              <TextField id="until" v-model="until" type="date" />
            </div>
            <div class="field note">
              <label for="quote-note">{{ t('sent.note') }}</label>
              <TextField id="quote-note" v-model="note" maxlength="500" />
            </div>
          </div>
          <p class="quiet">{{ t('sent.sendHow') }}</p>
          <p class="row">
            <AppButton look="primary" type="submit">{{ t('sent.send') }}</AppButton>
          </p>
        </form>
      </template>
    </section>
    <section v-if="sent.all.value.length > 0" class="stack">
      <h2>{{ t('sent.title') }}</h2>
      <p class="quiet">{{ t('sent.how') }}</p>
      <p v-if="printing.failed.value" class="bad" role="alert">{{ printing.failed.value }}</p>
      <SentQuote
        v-for="one in sent.all.value"
        :key="one.id"
        :sent="one"
        :busy="printing.busy.value !== null"
        :writable="!fixed"
        @turn="sent.turn(one.id, $event)"
        @print="printSent(one)"
        @csv="saveSent(one)"
        @order="orderAt(one)"
      />
    </section>
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
}
.due {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 280px);
  gap: 4px 12px;
  align-items: center;
}
.already {
  display: block;
  font-size: 13px;
}
.line {
  align-items: end;
}
.note {
  flex: 1 1 260px;
}
.found {
  gap: 8px;
}
@media (max-width: 759px) {
  .due {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
