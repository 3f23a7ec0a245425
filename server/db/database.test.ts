import { isDatabaseDown, openDatabase } from './database'

test('what says that the database is away, and what says that a statement was wrong', async () => {
  for (const code of ['ECONNREFUSED', 'ECONNRESET', 'EPIPE', '57P01', '57P03', '08006', '53300'])
    expect([code, isDatabaseDown({ code })]).toEqual([code, true])
  for (const code of ['23505', '42601', '22P02', 'ENOENT', ''])
    expect([code, isDatabaseDown({ code, message: 'duplicate key value' })]).toEqual([code, false])
  expect(isDatabaseDown(new Error('Connection terminated unexpectedly'))).toBe(true)
  const nobody = openDatabase('postgres://nobody:x@127.0.0.1:9/none')
  const refused = await nobody
    .selectFrom('properties')
    .select('id')
    .execute()
    .catch((error: unknown) => isDatabaseDown(error))
  expect(refused).toBe(true)
  await nobody.destroy()
})
