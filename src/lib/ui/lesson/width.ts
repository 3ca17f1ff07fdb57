/** Width of a lesson's music at scale 1, in CSS pixels: large enough to be read from a bench with a teacher beside it. */
export const LESSON_WIDTH = 660;
