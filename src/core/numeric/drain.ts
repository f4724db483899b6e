/** Runs a generator to its end. @returns what it returns. */
export function drain<T>(work: Generator<unknown, T>): T {
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}
