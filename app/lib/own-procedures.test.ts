import { copyOf, shipped } from '../../core/procedure'
import { merged, standing, type OwnProcedure } from './own-procedures'

const crimp = copyOf(shipped('gel_crimp')!, 'our_crimp', 'Our crimp')
const retitled = (title: string) => ({ ...crimp, title })
const served = (revision: number, title: string) => [{ revision, procedure: retitled(title) }]
const here = (more: Partial<OwnProcedure>): OwnProcedure[] => [
  { id: crimp.id, kept: retitled('One'), base: 1, mine: null, wants: 'nothing', theirs: null, refusals: [], ...more },
]

test('what was written here stays; what the server has instead since stands beside it until somebody chooses', () => {
  const of = (...args: Parameters<typeof merged>) =>
    merged(...args).map((o) => [o.kept?.title, o.mine?.title, o.wants, o.theirs, standing(o)?.title])
  expect(of(here({}), served(4, 'Four'))).toEqual([['Four', undefined, 'nothing', null, 'Four']])
  expect(of(here({}), [])).toEqual([])
  const [draft, done] = [
    here({ mine: retitled('Mine'), wants: 'draft' }),
    here({ mine: retitled('Mine'), wants: 'keep' }),
  ]
  expect(of(draft, served(1, 'One'))).toEqual([['One', 'Mine', 'draft', null, 'One']])
  expect(of(done, served(1, 'One'))).toEqual([['One', 'Mine', 'keep', null, 'Mine']])
  expect(of(done, served(2, 'Two'))).toEqual([['Two', 'Mine', 'keep', 2, 'Two']])
  expect(of(done, [])).toEqual([[undefined, 'Mine', 'keep', 0, undefined]])
  // Kept there already, and the answer lost on its way.
  expect(of(done, served(2, 'Mine'))).toEqual([['Mine', undefined, 'nothing', null, 'Mine']])
  expect(of(here({ wants: 'remove' }), served(1, 'One'))).toEqual([['One', undefined, 'remove', null, undefined]])
  expect(of(here({ wants: 'remove' }), [])).toEqual([])
  const fresh = here({ kept: null, base: 0, mine: retitled('New'), wants: 'keep' })
  expect(of(fresh, [])).toEqual([[undefined, 'New', 'keep', null, 'New']])
})
