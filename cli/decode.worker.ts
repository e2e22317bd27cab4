import { workerData } from 'node:worker_threads';
import type { DecodeOrder } from './decode';
import { readPicture } from './pictures';

// Decodes one picture to its place in shared memory, and ends.
const { file, wantsDeep, memory, at } = workerData as DecodeOrder;
const { data } = await readPicture(file, wantsDeep);
new Uint8Array(memory.buffer).set(data, at);
