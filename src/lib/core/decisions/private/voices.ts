/** The upper and the lower voice of a staff (1 right, 2 left), as the arranger numbers them. */
export const STAFF_VOICES = { 1: [1, 2], 2: [5, 6] } as const;
