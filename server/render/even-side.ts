/** Sides of the encoded picture: 4:2:0 needs even ones, so an odd side gets one more line. */
export const evenSide = (side: number): number => side + (side % 2);
