/** The page’s words for repairs. They come with the pages that show them. */
export const repairPageEn = {
  repairs: {
    title: 'What can be done about {part}',
    how: 'Each is made on paper and judged by the circuit: every valve that worked has its volts again with it. Costs are by usual figures, for the order alone.',
    working: 'Trying each on paper …',
    minutes: '{count} minute | {count} minutes',
    cost: 'about {cost} in all',
    material: 'of it material {material}',
    dig: '{length} of trench',
    forNow: 'For now only: it stands on the property’s list until it is undone.',
    not: 'Not possible',
    take: 'Take this',
    tell: 'The record then: {what}.',
    nothing: 'The record stays as it is.',
    more: 'and {count} more',
    write: 'Done: write it down',
    leave: 'Not yet',
    done: 'Written down. One undo takes it back; read it again now.',
    nearby: 'While it is open',
    saves: '{minutes} min now, saves {saves} min of a visit',
  },
}
