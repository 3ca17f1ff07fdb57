/** Whether the search, and the metronome that it offers, are open. */
export const search = $state({ open: false, metronome: false });
