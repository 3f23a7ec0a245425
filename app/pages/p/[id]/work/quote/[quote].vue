<script setup lang="ts">
import { writeCalendar } from '../../../../../../core/formats'
import type { OrderItem } from '../../../../../../core/order'
import { lengthText } from '../../../../../../core/quantity'
import { partKey, type WorkDone } from '../../../../../../core/record'
import type { Possible } from '../../../../../../core/repair'
import { getOrThrow, type PlaceId } from '../../../../../../core/site'
import { usePlan } from '../../../../../composables/usePlan'
import { usePrinting } from '../../../../../composables/usePrinting'
import { useDue } from '../../../../../composables/useRepairs'
import { useSentQuotes } from '../../../../../composables/useSentQuotes'
import { dayText } from '../../../../../composables/useSpeaker'
import { useWorkWords } from '../../../../../composables/useWorkWords'
import { saveText } from '../../../../../lib/save'
import { today } from '../../../../../lib/today'
import { orderDoc } from '../../../../../print/order'

/** The work order of a quote that was accepted: for the crew, in the order of walking. */
const route = useRoute()
const { property, due, behind } = useDue()
const { t, speaker } = useWorkWords(() => property.site!.settings.units)
const { all, work, orderOf } = useSentQuotes()
const { keep, sentences } = usePlan(() => speaker.value)
const printing = usePrinting(() => (property.site!.settings.market === 'metric' ? 'A4' : 'LETTER'))

const sent = computed(() => all.value.find((s) => s.id === route.params.quote) ?? null)
const order = computed(() => sent.value && orderOf(sent.value))
const fixed = computed(() => property.viewed !== null)
const day = ref(today())
const placeText = (place: PlaceId | null) => {
  if (place === null) return t('order.nowhere')
  const { tag, name } = getOrThrow(property.site!.places, place)
  return name ? `${tag} ${name}` : tag
}
const length = (length_m: number) => lengthText(length_m, property.site!.settings.units)

/** What the record becomes by a repair of the order, while what it mends is on record still. */
function optionOf({ item }: OrderItem): Possible | null {
  const { of } = item
  if (of.kind !== 'repair') return null
  const found = (due.value ?? []).find((d) => partKey(d.where) === partKey(of.where))
  const option = found?.options.find((o) => o.code === of.option)
  return option?.possible ? option : null
}
async function done(item: OrderItem, what: Pick<WorkDone, 'minutes' | 'used' | 'undone'>): Promise<void> {
  const option = optionOf(item)
  if (option && !(await keep({ ok: true, value: [...option.commands] }))) return
  await work(sent.value!.id, item.item.key, what)
}
const partsOf = ({ item }: OrderItem) => {
  const codes = new Set(sent.value!.quote.lines.filter((l) => l.item === item.key).map((l) => l.code))
  return order
    .value!.parts.filter((p) => codes.has(p.code))
    .map((p) => ({ ...p, quantity: quantityOf(item.key, p.code) }))
}
const quantityOf = (item: string, code: string) =>
  sent
    .value!.quote.lines.filter((l) => l.item === item && l.code === code)
    .reduce((sum, l) => sum + Number(l.quantity), 0)

const title = computed(() => t('order.calendar', { property: property.site!.about.name }))
const saveCalendar = () => {
  const from_s = Date.parse(`${day.value}T08:00:00`) / 1000
  const { minutes, stops } = order.value!
  const items = stops.flatMap((s) => s.items.map((i) => `${placeText(s.place)}: ${i.item.says}`))
  const event = {
    id: `${sent.value!.id}@order`,
    from_s,
    to_s: from_s + Math.max(30, Math.ceil(minutes)) * 60,
    summary: title.value,
    description: items.join('\n'),
  }
  saveText(`${title.value}.ics`, writeCalendar(title.value, [event], new Date()), 'text/calendar')
}
const print = () =>
  printing.print(
    'order',
    () =>
      orderDoc(order.value!, {
        paper: printing.paper.value,
        property: property.site!.about.name,
        day: dayText(`${day.value}T12:00:00`),
        placeText,
        length,
        speaker: speaker.value,
        site: property.site!,
      }),
    title.value,
  )
</script>

<template>
  <div class="stack page">
    <p>
      <NuxtLink :to="`/p/${String(route.params.id)}/work/quote`" :prefetch="false">{{ t('order.back') }}</NuxtLink>
    </p>
    <h1>{{ t('order.title') }}</h1>
    <p v-if="!sent || !order || sent.state !== 'accepted'" class="sheet">{{ t('order.none') }}</p>
    <template v-else>
      <p class="quiet">{{ t('order.how') }}</p>
      <p v-if="order.stops.length === 0" class="sheet" role="status">{{ t('order.finished') }}</p>
      <template v-else>
        <p>{{ t('order.walk', { length: length(order.walk_m), minutes: Math.round(order.minutes) }) }}</p>
        <ul v-if="sentences.length > 0" class="fault" role="alert">
          <li v-for="s in sentences" :key="s">{{ s }}</li>
        </ul>
        <section v-for="s in order.stops" :key="s.place ?? ''" class="sheet stack">
          <h2>{{ placeText(s.place) }}</h2>
          <ul>
            <OrderItemRow
              v-for="i in s.items"
              :key="i.item.key"
              :item="i"
              :parts="partsOf(i)"
              :option="optionOf(i)"
              :behind="due === null || behind"
              :writable="!fixed"
              @done="done(i, $event)"
            />
          </ul>
        </section>
        <section class="sheet stack">
          <h2>{{ t('order.van') }}</h2>
          <p v-if="order.parts.length === 0" class="quiet">{{ t('order.nothing') }}</p>
          <ul>
            <li v-for="p in order.parts" :key="p.code">
              <span class="figure">{{ p.quantity }} {{ t(`quotes.units.${p.unit}`) }}</span>
              {{ p.name }}
            </li>
          </ul>
        </section>
        <div class="row out">
          <div class="field">
            <label for="order-day">{{ t('order.day') }}</label>
            <TextField id="order-day" v-model="day" type="date" />
          </div>
          <AppButton :disabled="day === ''" @click="saveCalendar">{{ t('order.ics') }}</AppButton>
          <AppButton :disabled="printing.busy.value !== null" @click="print">{{ t('order.pdf') }}</AppButton>
        </div>
        <p v-if="printing.failed.value" class="bad" role="alert">{{ printing.failed.value }}</p>
      </template>
      <section v-if="sent.done.size > 0" class="sheet stack">
        <h2>{{ t('order.wasDone') }}</h2>
        <ul>
          <li v-for="i in sent.quote.items.filter((x) => sent!.done.has(x.key))" :key="i.key" class="row done">
            <span>
              {{ i.says }}
              <span class="quiet">
                {{ t('order.by', { author: sent.done.get(i.key)!.author, day: dayText(sent.done.get(i.key)!.at) }) }}
                <template v-if="sent.done.get(i.key)!.minutes !== null">
                  · {{ t('order.tookMinutes', { minutes: sent.done.get(i.key)!.minutes! }) }}
                </template>
              </span>
            </span>
            <AppButton
              v-if="!fixed"
              look="plain"
              @click="work(sent!.id, i.key, { minutes: null, used: [], undone: true })"
            >
              {{ t('order.undo') }}
            </AppButton>
          </li>
        </ul>
      </section>
    </template>
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
}
.out {
  align-items: end;
}
.done {
  justify-content: space-between;
}
</style>
