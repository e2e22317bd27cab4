import { Pool, type WorkerHandle } from './pool';
import type { FromWorker, ToWorker } from './protocol';

const module = new WebAssembly.Module(Uint8Array.of(0, 0x61, 0x73, 0x6d, 1, 0, 0, 0));

/** Workers that answer every question with its name, or die as soon as they start. */
function setUp() {
  let dead = false;
  let spawned = 0;
  const spawn = (): WorkerHandle => {
    spawned++;
    let say: (message: FromWorker) => void = () => undefined;
    return {
      post: (message: ToWorker) => {
        if (dead) return;
        setTimeout(() => {
          if (message.kind === 'start') say({ kind: 'ready' });
          if (message.kind === 'call') say({ kind: 'answer', ticket: message.ticket, value: message.question.call });
        });
      },
      listen: (onMessage, onDeath) => {
        say = onMessage;
        if (dead) setTimeout(() => onDeath('no file'));
      },
      terminate: () => undefined,
    };
  };
  const pool = new Pool({ module, shared: false, size: 2, spawn, patience: 300 });
  return { pool, spawned: () => spawned, die: (now: boolean) => (dead = now) };
}

it('gives up with one sentence when no worker can be started any more, and tries again when it is asked again', async () => {
  const { pool, spawned, die } = setUp();
  await pool.ready();
  await expect(pool.call({ call: 'read', at: 0, bytes: 1 })).resolves.toBe('read');
  die(true);
  const asked = pool.call({ call: 'read', at: 0, bytes: 1 });
  // The silent workers are replaced by others that die at once.
  await expect(Promise.all([asked, pool.call({ call: 'read', at: 0, bytes: 1 })])).rejects.toThrow(/A worker stopped|cannot be started/);
  await expect(
    (async () => {
      for (let i = 0; i < 40; i++)
        await pool.call({ call: 'read', at: 0, bytes: 1 }).catch((e: Error) => /A worker stopped/.test(e.message) || Promise.reject(e));
    })(),
  ).rejects.toThrow('The workers that draw cannot be started (no file); your work is kept, reload the page to go on.');
  expect(spawned()).toBeLessThan(40);
  die(false);
  let answer: unknown = null;
  for (let i = 0; i < 10 && answer !== 'read'; i++) answer = await pool.call({ call: 'read', at: 0, bytes: 1 }).catch(() => null);
  expect(answer).toBe('read');
  pool.close();
});

it('waits longer for each worker that is slow to start, instead of giving up', async () => {
  const timers: ReturnType<typeof setTimeout>[] = [];
  const later = (work: () => void, ms: number) => void timers.push(setTimeout(work, ms));
  let spawned = 0;
  const spawn = (): WorkerHandle => {
    spawned++;
    let [say, gone]: [(message: FromWorker) => void, boolean] = [() => undefined, false];
    return {
      post: (message: ToWorker) => {
        // As long as its start takes, it answers nothing either.
        if (message.kind === 'start') later(() => gone || say({ kind: 'ready' }), 900);
        if (message.kind === 'call') later(() => gone || say({ kind: 'answer', ticket: message.ticket, value: message.question.call }), 950);
      },
      listen: (onMessage) => void (say = onMessage),
      terminate: () => void (gone = true),
    };
  };
  const pool = new Pool({ module, shared: true, size: 1, spawn, patience: 100 });
  await expect(pool.call({ call: 'read', at: 0, bytes: 1 })).resolves.toBe('read');
  expect(spawned).toBeGreaterThan(1);
  pool.close();
  timers.forEach(clearTimeout);
});
