/** Words of Work: the visit, procedures as they are followed, kit. They come with that place. */
export const workEn = {}
