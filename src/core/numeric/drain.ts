/** Runs a generator to its end. @returns what it returns. */
export function drain<T>(work: Generator<unknown, T>): T {
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}

/** Drives a part of some work that yields shares done: the part takes up `width` of the whole, from `from` on. */
export function* partOf<T>(work: Generator<number, T>, from: number, width: number): Generator<number, T> {
  for (;;) {
    const next = work.next();
    if (next.done) return next.value;
    yield from + width * next.value;
  }
}
