/** Tolerance of the resistors that people have, where nobody says: 5 %. */
export const USUAL_TOLERANCE = 0.05;
