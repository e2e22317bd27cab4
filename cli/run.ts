import { parseArgs } from 'node:util';
import { check } from './check';
import { Refused } from './files';
import { guards } from './guards';
import { listMaterials, makeMaterial } from './material';
import { measure } from './measure';
import { render } from './render';
import { words } from './words';

const usage = `dermatex render --photo P --recipe R --out O [--scale S]   the recipe laid on the photo
dermatex guards --photo P --out DIR                           finds faces and people; a mask for each region
dermatex material ID --seed N --size WxH --out O             one material as a picture
dermatex materials                                           lists them
dermatex measure A B [--mask M]                              CIEDE2000 mean, p95, max and SSIM of two pictures
dermatex check FILE                                          validates a recipe or a piece
dermatex words                                                every label and help text of the controls`;

async function dispatch(argv: string[]): Promise<void> {
  const [command, ...rest] = argv;
  const option = { type: 'string' } as const;
  const read = () => {
    try {
      return parseArgs({
        args: rest,
        allowPositionals: true,
        options: { photo: option, recipe: option, out: option, scale: option, seed: option, size: option, mask: option },
      });
    } catch (error) {
      throw new Refused(`${(error as Error).message.split('.')[0]}. Say "dermatex help" for the ways to call it.`);
    }
  };
  switch (command) {
    case 'render':
      return render(read().values);
    case 'guards':
      return guards(read().values);
    case 'material':
      return makeMaterial(read().positionals[0], read().values);
    case 'materials':
      return listMaterials();
    case 'measure':
      return measure(read().positionals, read().values.mask);
    case 'check':
      return check(read().positionals[0]);
    case 'words':
      return words();
    case 'help':
    case '--help':
      return console.log(usage);
    default:
      throw new Refused(
        `${command ? `There is no command "${command}"` : 'Say what to do'}: render, guards, material, materials, measure, check or words.`,
      );
  }
}

/**
 * Runs one command.
 * @returns the exit code: 0; 2 for a mistake of the caller, told in one line; 1 for a mistake of ours, told with its trace
 */
export async function run(argv: string[]): Promise<number> {
  try {
    await dispatch(argv);
    return 0;
  } catch (error) {
    const isCallers = error instanceof Refused || error instanceof RangeError;
    console.error(isCallers ? error.message : (error as Error).stack);
    return isCallers ? 2 : 1;
  }
}
