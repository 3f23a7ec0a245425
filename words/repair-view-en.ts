/** Words of a property that cannot be read; they come where one is. */
export const repairViewEn = {
  repair: {
    title: 'This property cannot be read',
    how: 'Nothing of it is lost. What is in the way:',
    save: 'Save its file',
    saveHow: 'Mend what is named in the file, delete the property here, and open the file again.',
  },
}
