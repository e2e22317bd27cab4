import { Cancelled, orStopped } from './stopping';

it('gives the result, the fault, or Cancelled, whichever comes first', async () => {
  const never = new Promise<number>(() => undefined);
  await expect(orStopped(Promise.resolve(3))).resolves.toBe(3);
  const stop = new AbortController();
  await expect(orStopped(Promise.resolve(4), stop.signal)).resolves.toBe(4);
  await expect(orStopped(Promise.reject(new Error('no')), stop.signal)).rejects.toThrow('no');
  const stopped = orStopped(never, stop.signal);
  stop.abort();
  await expect(stopped).rejects.toBeInstanceOf(Cancelled);
  await expect(orStopped(never, stop.signal)).rejects.toBeInstanceOf(Cancelled);
});
