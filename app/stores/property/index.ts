import { defineStore } from 'pinia'
import { v7 } from 'uuid'
import { SCHEMA_VERSION, type Message, type MessageBody } from '../../../core/record'
import type { Command } from '../../../core/site'
import { authorName, deviceId } from '../../lib/device'
import { keep } from '../../lib/outbox'
import { isChange } from './applied'
import { catchingUp } from './catching-up'
import { living } from './live'
import { loading } from './loading'
import { refusedMessages } from './refused'
import { remembered } from './remembered'
import { sending } from './sending'
import { propertyState } from './state'

/**
 * One property: what the server had, with what this device has still to send laid over it. A message goes to the
 * device's own database first, then to the server by its id; what the page calls saved, the server has confirmed.
 */
export const useProperty = defineStore('property', () => {
  const state = propertyState()
  const { held, outbox, ahead, viewed, unkept, keeping, undoable } = state
  const send = sending(state, (others) => catchUp(others))
  const { load, loadOlder, view } = loading(state, () => void send())
  const catchUp = catchingUp(state, load)
  const { listen, showDoing, others } = living(state, { load, catchUp, send: () => void send() })

  /** Keeps a message on this device, shows it, and sends it. Resolves with its id once it is kept. */
  async function record(body: MessageBody): Promise<string> {
    if (!held.value) throw new Error('record: no property is loaded')
    const message: Message = {
      id: v7(),
      schema: SCHEMA_VERSION,
      property: held.value.id,
      author: authorName(),
      device: deviceId(),
      at: new Date().toISOString(),
      body,
    }
    keeping.value++
    await keep(message).catch(() => {
      unkept.value = true
    })
    keeping.value--
    outbox.value = [...outbox.value, message]
    void send()
    return message.id
  }
  /** Changes the site; null while an earlier state is looked at. */
  const change = async (commands: readonly Command[]): Promise<string | null> =>
    viewed.value
      ? null
      : record({
          kind: 'batch',
          base: held.value!.revision,
          commands: [...commands],
          onTopOf: [...ahead.value.map((a) => a.message), ...outbox.value.filter(isChange)].map((m) => m.id),
        })
  const undo = async (): Promise<void> => {
    if (undoable.value) await record({ kind: 'undo', undoes: undoable.value.id })
  }

  if (typeof window !== 'undefined') {
    window.addEventListener('online', () => void send())
    document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && void send())
  }
  const { site, facts, pending, rejected, status, line, troubles, outdated } = state
  return {
    held,
    site,
    facts,
    keeping,
    pending,
    rejected,
    status,
    line,
    troubles,
    outdated,
    unkept,
    undoable,
    viewed,
    load,
    loadOlder,
    view,
    record,
    change,
    undo,
    send,
    listen,
    showDoing,
    others,
    ...refusedMessages(state, () => void send()),
    ...remembered(state),
  }
})
