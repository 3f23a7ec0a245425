import { refusal } from '../../core/refusal'
import type { Message } from '../../core/record'
import type { MessageReply, Reply } from './api'
import { retryAfter_ms, settled } from './sending'

const message = (id: string): Message => ({ id }) as Message
const two = [message('a'), message('b')]
const replies = (...list: MessageReply[]): Reply<{ replies: MessageReply[] }> => ({
  kind: 'ok',
  value: { replies: list },
})
const of = (...args: Parameters<typeof settled>) => {
  const { taken, refused, then } = settled(...args)
  return [taken.map((t) => t.message.id).join(''), refused.map((r) => r.message.id).join(''), then]
}
const why = [refusal('conflict')]

test('only an answer for a message lets it leave; everything else leaves it waiting', () => {
  expect(of(two, replies({ id: 'a', status: 'accepted' }, { id: 'b', status: 'already' }))).toEqual(['ab', '', 'go_on'])
  expect(of(two, replies({ id: 'b', status: 'accepted' }))).toEqual(['b', '', 'go_on'])
  expect(of(two, replies({ id: 'A', status: 'accepted' }, { id: 'b', status: 'failed' }))).toEqual(['a', '', 'later'])
  expect(of(two, replies({ id: 'a', status: 'refused', refusals: why }))).toEqual(['', 'a', 'go_on'])
  expect(of(two, replies({ id: 'x', status: 'accepted' }))).toEqual(['', '', 'later'])
  const newer = [refusal('newer_client')]
  expect(of(two, replies({ id: 'a', status: 'refused', refusals: newer }))).toEqual(['', '', 'reload'])
})

test('a refused body is no answer to the messages in it, but to one that was sent alone', () => {
  for (const status of [400, 413, 422]) {
    expect(of(two, { kind: 'refused', status, refusals: why })).toEqual(['', '', 'fewer'])
    expect(of([message('a')], { kind: 'refused', status, refusals: why })).toEqual(['', 'a', 'go_on'])
  }
  for (const status of [403, 404, 409, 429])
    expect(of([message('a')], { kind: 'refused', status, refusals: why })).toEqual(['', '', 'later'])
  expect(of([message('a')], { kind: 'refused', status: 400, refusals: [] })).toEqual(['', '', 'later'])
  expect(of(two, { kind: 'failed' })).toEqual(['', '', 'fewer'])
  expect(of([message('a')], { kind: 'failed' })).toEqual(['', '', 'later'])
  expect(of(two, { kind: 'unreachable' })).toEqual(['', '', 'later'])
  expect(of(two, { kind: 'other_version' })).toEqual(['', '', 'reload'])
})

test('tries in vain come farther and farther apart, and never stop', () => {
  expect([0, 1, 2, 3, 20].map(retryAfter_ms)).toEqual([3000, 6000, 12_000, 20_000, 20_000])
})
