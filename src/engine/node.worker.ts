import { parentPort } from 'node:worker_threads';
import type { ToWorker } from './protocol';
import { serve } from './worker';

const handle = serve({ post: (message, transfer = []) => parentPort?.postMessage(message, transfer) });
parentPort?.on('message', (message: ToWorker) => handle(message));
