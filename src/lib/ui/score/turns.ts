/** Small pieces of work one after another, each in a task of its own, so that the page answers in between. */
const waiting: (() => void)[] = [];
let running = false;

function next(): void {
  const task = waiting.shift();
  if (!task) {
    running = false;
    return;
  }
  try {
    task();
  } finally {
    setTimeout(next);
  }
}

/** Does something when it is its turn. The function that comes back takes it out of the row again. */
export function inTurn(task: () => void): () => void {
  waiting.push(task);
  if (!running) {
    running = true;
    setTimeout(next);
  }
  return () => {
    const at = waiting.indexOf(task);
    if (at >= 0) waiting.splice(at, 1);
  };
}
