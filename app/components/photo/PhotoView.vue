<script setup lang="ts">
import type { PhotoMark, Shown } from '../../../core/record'
import { dayText, timeText } from '../../composables/useSpeaker'
import { usePhotoWords } from '../../composables/usePhotoWords'
import { usePhotos } from '../../composables/usePhotos'
import { useProperty } from '../../stores/property'

/** One photo large: arrows are drawn over it with a finger, each with a word; it can be said what it shows. */
const props = defineProps<{ shown: Shown }>()
const emit = defineEmits<{ close: [] }>()
const { t } = usePhotoWords()
const property = useProperty()
const { note } = usePhotos()
const says = ref(props.shown.says)
const marks = ref<PhotoMark[]>([...props.shown.marks])
const drawing = ref<PhotoMark | null>(null)
const word = ref('')
const board = useTemplateRef<HTMLElement>('board')

const within = (n: number) => Math.min(1, Math.max(0, Math.round(n * 1000) / 1000))
function spotOf(event: PointerEvent): PhotoMark['from'] {
  const { left, top, width, height } = board.value!.getBoundingClientRect()
  return { x: within((event.clientX - left) / width), y: within((event.clientY - top) / height) }
}
function begin(event: PointerEvent): void {
  if (property.viewed) return
  const at = spotOf(event)
  drawing.value = { from: at, to: at, says: word.value.trim().slice(0, 60) }
  board.value!.setPointerCapture(event.pointerId)
}
function move(event: PointerEvent): void {
  if (drawing.value) drawing.value = { ...drawing.value, to: spotOf(event) }
}
/** A tap is no arrow: it has no direction. */
const SHORTEST = 0.02
function end(): void {
  const { value: drawn } = drawing
  drawing.value = null
  if (!drawn || Math.hypot(drawn.to.x - drawn.from.x, drawn.to.y - drawn.from.y) < SHORTEST) return
  marks.value = [...marks.value, drawn].slice(-30)
  word.value = ''
}
const isChanged = computed(
  () => says.value !== props.shown.says || JSON.stringify(marks.value) !== JSON.stringify(props.shown.marks),
)
async function keep(): Promise<void> {
  if (isChanged.value) await note(props.shown.id, { says: says.value.trim().slice(0, 200), marks: marks.value })
  emit('close')
}
async function takeOff(): Promise<void> {
  await note(props.shown.id, { says: props.shown.says, marks: props.shown.marks, gone: true })
  emit('close')
}
</script>

<template>
  <AppDialog
    :visible="true"
    :title="[`${dayText(shown.photo.at)}, ${timeText(shown.photo.at)}`, shown.photo.author].filter(Boolean).join(' · ')"
    @update:visible="keep"
  >
    <div class="stack">
      <div
        ref="board"
        class="board"
        @pointerdown="begin"
        @pointermove="move"
        @pointerup="end"
        @pointercancel="drawing = null"
      >
        <PhotoImage
          :sha256="shown.photo.sha256"
          :width="shown.photo.width_px"
          :height="shown.photo.height_px"
          :marks="drawing ? [...marks, drawing] : marks"
          :alt="says || t('photos.photo')"
        />
      </div>
      <template v-if="!property.viewed">
        <p class="quiet">{{ t('photos.draw') }}</p>
        <div class="field">
          <label for="photo-word">{{ t('photos.word') }}</label>
          <TextField id="photo-word" v-model="word" maxlength="60" autocomplete="off" />
        </div>
        <div class="field">
          <label for="photo-says">{{ t('photos.says') }}</label>
          <TextField id="photo-says" v-model="says" maxlength="200" autocomplete="off" />
        </div>
        <div class="row">
          <AppButton look="primary" @click="keep">{{ t('photos.keep') }}</AppButton>
          <AppButton v-if="marks.length > 0" @click="marks = marks.slice(0, -1)">{{ t('photos.lastOff') }}</AppButton>
          <AppButton look="plain" @click="takeOff">{{ t('photos.gone') }}</AppButton>
        </div>
      </template>
    </div>
  </AppDialog>
</template>

<style scoped>
.board {
  touch-action: none;
  cursor: crosshair;
}
</style>
