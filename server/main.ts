import path from 'node:path';
import { createApp } from './app';

const root = process.env.DERMATEX_ROOT ?? process.cwd();
const wanted = Number(process.env.PORT ?? process.argv[2] ?? 0);
const server = createApp(path.join(root, 'dist'), path.join(root, 'demo/supplier'), { isTest: process.env.DERMATEX_TEST === '1' }).listen(
  wanted,
  '127.0.0.1',
  (error?: Error) => {
    // A server that cannot listen calls back as well; what is said then is said below.
    if (error) return;
    const address = server.address();
    const port = typeof address === 'object' && address ? address.port : wanted;
    console.log(`Dermatex is at http://localhost:${port}`);
  },
);
server.on('error', (error: NodeJS.ErrnoException) => {
  console.error(error.code === 'EADDRINUSE' ? `Port ${wanted} is in use; name another or none.` : error.message);
  process.exit(1);
});
