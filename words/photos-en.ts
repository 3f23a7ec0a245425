/** Words of photos; they come with the pages that show them. */
export const photosEn = {
  photos: {
    more: 'Show more',
    title: 'Photos',
    how: 'Kept on this device first, without the place and the device that a camera writes into its file.',
    none: 'No photos yet. They are taken at a box, and at the steps of a procedure that ask for one.',
    photo: 'Photo',
    take: 'Take or pick a photo',
    taking: 'Taking it in …',
    no_picture: '{name} is no picture that can be read. Take it again, or choose a JPEG, PNG or WebP file.',
    not_kept: '{name} could not be kept on this device: it has no room, or keeps nothing from this address.',
    too_large: '{name} is larger than 60 MB. Choose a smaller picture.',
    draw: 'Draw an arrow with a finger; a word written first stands at its tail.',
    word: 'A word for the next arrow',
    says: 'What it shows',
    keep: 'Keep',
    lastOff: 'Last arrow off',
    gone: 'Show it no more',
    find: 'Find by box or words',
  },
}
