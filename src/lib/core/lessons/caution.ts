/** The caution about hands, wherever practice is spoken of. */
export const CAUTION =
  'Pause every five to ten minutes and shake out hands, wrists and shoulders. Stop when it hurts; if pain lasts, see a doctor.';
