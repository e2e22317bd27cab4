import { parseArgs } from 'node:util';
import { batch } from './batch';
import { check } from './check';
import { Refused } from './files';
import { guards } from './guards';
import { listMaterials, makeMaterial } from './material';
import { measure } from './measure';
import { render } from './render';
import { words } from './words';

const usage = `dermatex render --photo P --recipe R --out O [--scale S]   the recipe laid on the photo
                [--bits 16]                                   as .png or .tif with 16 bits a channel
                [--no-capture]                                without the photo's capture data (Exif)
                [--no-detail]                                 materials at most 2048 pixels wide: quicker, softer on large photos
dermatex batch --recipe R --out DIR PHOTO…                    the recipe on many photos, or all in a folder
               [--format png|jpg|webp|tif] [--name "{number}-{name}"] [--scale S] [--bits 16] [--workers N]
               [--shard 3/8]                                  only the third of eight parts, for as many machines
dermatex guards --photo P --out DIR                           finds faces and people; a mask for each region
dermatex material ID --seed N --size WxH --out O             one material as a picture
dermatex materials                                           lists them
dermatex measure A B [--mask M]                              CIEDE2000 mean, p95, max and SSIM of two pictures
dermatex check FILE                                          validates a recipe or a piece
dermatex words                                                every label and help text of the controls`;

async function dispatch(argv: string[]): Promise<void | boolean> {
  const [command, ...rest] = argv;
  const option = { type: 'string' } as const;
  const read = () => {
    try {
      return parseArgs({
        args: rest,
        allowPositionals: true,
        options: {
          'no-capture': { type: 'boolean' },
          'no-detail': { type: 'boolean' },
          bits: option,
          format: option,
          name: option,
          shard: option,
          workers: option,
          photo: option,
          recipe: option,
          out: option,
          scale: option,
          seed: option,
          size: option,
          mask: option,
        },
      });
    } catch (error) {
      throw new Refused(`${(error as Error).message.split('.')[0]}. Say "dermatex help" for the ways to call it.`);
    }
  };
  switch (command) {
    case 'render':
      return render(read().values);
    case 'batch': {
      const { positionals, values } = read();
      return batch(positionals, values);
    }
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
        `${command ? `There is no command "${command}"` : 'Say what to do'}: render, batch, guards, material, materials, measure, check or words.`,
      );
  }
}

/**
 * Runs one command.
 * @returns the exit code: 0; 1 when some photos of a batch failed; 2 for a mistake of the caller, told in one line; 1 for a mistake of ours, told with its trace
 */
export async function run(argv: string[]): Promise<number> {
  try {
    return (await dispatch(argv)) === false ? 1 : 0;
  } catch (error) {
    const isCallers = error instanceof Refused || error instanceof RangeError;
    console.error(isCallers ? error.message : (error as Error).stack);
    return isCallers ? 2 : 1;
  }
}
