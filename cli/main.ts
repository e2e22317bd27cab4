import { run } from './run';

void run(process.argv.slice(2)).then((status) => process.exit(status));
