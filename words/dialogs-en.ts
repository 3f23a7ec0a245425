/** The words of the dialogs of keys and of going to something; they come with the dialogs. */
export const dialogsEn = {
  keys: {
    title: 'Keys',
    enter: 'keep the reading, go to the next',
    o: 'open',
    z: 'a short: then its ohms',
    s: 'skip',
    up: 'the thread before',
    down: 'the thread after',
    undo: 'undo',
    find: 'find a station, box or core',
    help: 'this list',
    esc: 'close, or clear',
  },
  find: {
    title: 'Find a station, box or core',
    none: 'Nothing matches.',
    station: 'station',
    box: 'box',
    core: 'core',
    hint: 'Type a name, a number or a colour',
  },
}
