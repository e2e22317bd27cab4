export class Cancelled extends Error {
  constructor() {
    super('Stopped.');
    this.name = 'Cancelled';
  }
}

/** A worker died and took with it what only its own memory held: pictures must be loaded again. */
export class Lost extends Error {
  constructor() {
    super('A worker stopped and its memory is gone.');
    this.name = 'Lost';
  }
}

/** The work's result, or Cancelled as soon as the signal says so: for work that cannot be broken off itself. */
export function orStopped<T>(work: Promise<T>, signal?: AbortSignal): Promise<T> {
  if (!signal) return work;
  return new Promise((resolve, reject) => {
    const stop = () => reject(new Cancelled());
    if (signal.aborted) stop();
    signal.addEventListener('abort', stop, { once: true });
    void work.then(resolve, reject).finally(() => signal.removeEventListener('abort', stop));
  });
}
