import { copyOf, shipped } from '../core/procedure'
import { expect, test } from '@playwright/test'
import { beginWork, doStep, openFile, ownProperty, pick, seriousFindings } from './kit'

test('a company’s own procedure: adapted from ours, written without a signal, kept for everybody, followed at a box, and two who write it at once choose', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Own procedures')
  const served = async () => {
    const { procedures } = await (await request.get('/api/procedures')).json()
    return procedures as { revision: number; procedure: { id: string; title: string; steps: { id: string }[] } }[]
  }
  for (const { revision, procedure } of await served())
    await request.delete(`/api/procedures/${procedure.id}?base=${revision}`)
  await page.goto(`/p/${id}/work/procedures`)
  await page.getByRole('button', { name: 'Adapt Raise a sunken box' }).click()
  await expect(page.getByRole('heading', { name: 'Raise a sunken box, ours' })).toBeVisible()
  await page.getByRole('button', { name: 'Change: Step 1', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Take out' })).toBeDisabled()
  await page.getByRole('button', { name: 'A step after this' }).click()
  await page.getByLabel('What is done').fill('Write the number of {box} under the lid.')
  await pick(page.getByRole('combobox', { name: 'Answered by' }), 'one of several answers')
  await page.getByRole('button', { name: 'Keep for everybody' }).click()
  await expect(page.getByRole('alert')).toContainText('answers to choose from')
  await page.getByLabel('Answers that let one go on').fill('Written\nNo pen')
  expect(await served()).toEqual([])
  // Left as a draft and come back to: nothing of it is lost.
  await page.reload()
  await expect(page.getByText('Draft, on this device only')).toBeVisible()
  await page.route('**/api/procedures/**', (route) => route.abort())
  await page.getByRole('button', { name: 'Keep for everybody' }).click()
  await expect(page.getByRole('status')).toHaveText('Kept on this device; it is sent when the server answers.')
  expect(await seriousFindings(page)).toEqual([])
  await page.unroute('**/api/procedures/**')
  await page.goto('/procedures')
  await expect(page.getByRole('link', { name: /Raise a sunken box, ours.*Kept for everybody/ })).toBeVisible()
  expect((await served()).map((s) => [s.revision, s.procedure.steps[1]!.id])).toEqual([[1, 'own']])

  await page.goto(`/p/${id}/boxes/B3`)
  await beginWork(page, page, 'Raise a sunken box, ours')
  await doStep(page)
  await expect(page.getByRole('heading', { name: 'Write the number of B3 under the lid.' })).toBeVisible()
  await doStep(page, 'No pen')

  // Somebody else keeps another title meanwhile: both stand, and one is chosen.
  await page.goto('/procedures/our_raise_box')
  const title = page.getByLabel('Title')
  await title.fill('Box up')
  const { procedure } = (await served())[0]!
  await request.put('/api/procedures/our_raise_box', { data: { base: 1, procedure: { ...procedure, title: 'Lift' } } })
  await page.getByRole('button', { name: 'Keep for everybody' }).click()
  await expect(page.getByRole('alert')).toContainText('Somebody else kept another version since')
  await page.getByRole('button', { name: 'Keep mine' }).click()
  await expect.poll(async () => (await served())[0]!.procedure.title).toBe('Box up')

  // One of nothing but their own steps is followed too.
  await page.goto('/procedures')
  await page.getByRole('button', { name: 'New procedure' }).click()
  await page.getByRole('dialog').getByLabel('Title').fill('Gate check')
  await page.getByRole('dialog').getByRole('button', { name: 'Begin' }).click()
  await page.getByRole('button', { name: 'Change: Step 1', exact: true }).click()
  await page.getByLabel('What is done').fill('Shut the gate behind {box}.')
  await page.getByRole('button', { name: 'Keep for everybody' }).click()
  await expect(page.getByRole('status')).toHaveText('Kept.')
  await page.goto(`/p/${id}/boxes/B4`)
  await beginWork(page, page, 'Gate check')
  await expect(page.getByRole('heading', { name: 'Shut the gate behind B4.' })).toBeVisible()
  await page.goto('/procedures/gate_check')
  await page.getByRole('button', { name: 'Take it off for everybody' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Take it off for everybody' }).click()

  await page.goto('/procedures')
  const bare = { ...copyOf(shipped('gel_crimp')!, 'their_crimp', 'Crimp'), steps: shipped('gel_crimp')!.steps.slice(1) }
  const file = { name: 'crimp.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(bare)) }
  await openFile(page, 'Bring in a file', file)
  await expect(page.getByRole('alert')).toContainText('the step “power” is gone')
  await page.getByRole('link', { name: /Box up/ }).click()
  await page.getByRole('button', { name: 'Take it off for everybody' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Take it off for everybody' }).click()
  await expect(page.getByText('None yet.')).toBeVisible()
  expect(await served()).toEqual([])
})
