import { pickFiles } from '../store/files';

const picker = () => document.querySelector<HTMLInputElement>('input[type="file"]');

test('the picker of files stays in the document until it is answered, so that a browser short of memory cannot drop it', async () => {
  const click = jest.spyOn(HTMLInputElement.prototype, 'click').mockImplementation(() => undefined);
  const chosen = pickFiles('image/png');
  const input = picker();
  expect(input?.accept).toBe('image/png');
  expect(click.mock.instances).toEqual([input]);
  const file = new File(['x'], 'keeper.png', { type: 'image/png' });
  Object.defineProperty(input, 'files', { value: [file] });
  input?.dispatchEvent(new Event('change'));
  expect(await chosen).toEqual([file]);
  expect(picker()).toBeNull();

  const left = pickFiles('image/png');
  picker()?.dispatchEvent(new Event('cancel'));
  expect(await left).toEqual([]);
  expect(picker()).toBeNull();
});
