import type { Signature } from '../../core/record'

/** The box that signatures are kept in. */
export const SIGN_WIDTH = 1000
export const SIGN_HEIGHT = 400

/** The strokes of a signature as the `d` of a path; a dot is a short line. */
export const signaturePath = (strokes: Signature): string =>
  strokes
    .map((stroke) => {
      const points = Array.from(
        { length: Math.floor(stroke.length / 2) },
        (_, i) => `${stroke[2 * i]} ${stroke[2 * i + 1]}`,
      )
      return points.length === 1 ? `M${points[0]}h1` : `M${points.join('L')}`
    })
    .join('')

/** A signature as a picture for print. */
export const signatureSvg = (strokes: Signature): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${SIGN_WIDTH} ${SIGN_HEIGHT}">` +
  `<path d="${signaturePath(strokes)}" fill="none" stroke="#1c1a17" stroke-width="6" stroke-linecap="round" ` +
  `stroke-linejoin="round"/></svg>`
