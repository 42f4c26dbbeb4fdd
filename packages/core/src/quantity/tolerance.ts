/** Default resistor tolerance: 5 %. */
export const USUAL_TOLERANCE = 0.05;
