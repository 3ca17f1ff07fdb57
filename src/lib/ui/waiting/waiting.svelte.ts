/** What the whole page waits for besides another page: a file that is made to be taken away. */
class Waiting {
  /** Path of what is made, and its name. */
  file = $state.raw<{ readonly path: string; readonly name: string }>();
}

export const waiting = new Waiting();
