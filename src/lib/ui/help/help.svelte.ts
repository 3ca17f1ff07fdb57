/** Whether the help is open, from wherever it is asked for. */
export const help = $state({ open: false });
