import '@testing-library/jest-dom';
import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { PaperProvider } from 'react-native-paper';
import { laySchema } from '@/core/lay/lay';
import { treatmentByKind } from '@/core/treatments';
import { lightTheme } from '../theme';
import { Panel } from './Panel';
import { Slider, type SliderProps } from './Slider';

const wrap = (node: React.ReactNode) => render(<PaperProvider theme={lightTheme}>{node}</PaperProvider>);
const slider = (more: Partial<SliderProps> = {}) => {
  const onCommit = jest.fn();
  const onPreview = jest.fn();
  wrap(
    <Slider
      label="Strength"
      value={0.4}
      neutral={1}
      min={0}
      max={1}
      step={0.01}
      unit="%"
      factor={100}
      onCommit={onCommit}
      onPreview={onPreview}
      {...more}
    />,
  );
  return {
    onCommit,
    onPreview,
    range: screen.getByRole('slider', { name: 'Strength' }),
    text: screen.getByRole('textbox', { name: 'Strength, typed' }),
  };
};

it('shows its value with the unit and previews while held, committing once it is let go', () => {
  const { range, text, onPreview, onCommit } = slider();
  expect(text).toHaveValue('40');
  expect(range).toHaveAttribute('aria-valuetext', '40 %');
  fireEvent.change(range, { target: { value: '0.5' } });
  fireEvent.change(range, { target: { value: '0.6' } });
  expect(onPreview).toHaveBeenLastCalledWith(0.6);
  expect(onCommit).not.toHaveBeenCalled();
  fireEvent.pointerUp(range);
  expect(onCommit).toHaveBeenCalledTimes(1);
  expect(onCommit).toHaveBeenCalledWith(0.6);
});

it('follows a quick drag all the way and a slow one in fine steps', () => {
  const { range, onPreview, onCommit } = slider();
  range.getBoundingClientRect = () => ({ width: 200 }) as DOMRect;
  let now = 0;
  const clock = jest.spyOn(performance, 'now').mockImplementation(() => now);
  const at = (type: string, clientX: number) => fireEvent(range, new MouseEvent(type, { bubbles: true, clientX }));
  at('pointerdown', 80);
  now += 16;
  // 20 px in 16 ms: a tenth of the track, a tenth of the range.
  at('pointermove', 100);
  expect(onPreview.mock.lastCall[0]).toBeCloseTo(0.5, 6);
  // What the browser makes of the pointer's place no longer counts.
  fireEvent.change(range, { target: { value: '0.9' } });
  expect(onPreview.mock.lastCall[0]).toBeCloseTo(0.5, 6);
  now += 1000;
  // The same 20 px in a second: an eighth of it.
  at('pointermove', 120);
  expect(onPreview.mock.lastCall[0]).toBeGreaterThan(0.5);
  expect(onPreview.mock.lastCall[0]).toBeLessThan(0.53);
  at('pointerup', 120);
  expect(onCommit).toHaveBeenCalledTimes(1);
  clock.mockRestore();
});

it('goes back to neutral on a double tap', () => {
  const { range, onCommit } = slider();
  fireEvent.doubleClick(range);
  expect(onCommit).toHaveBeenCalledWith(1);
});

it('can be typed into, with a comma too, held within its range; nonsense changes nothing', async () => {
  const { text, onCommit } = slider();
  await userEvent.clear(text);
  await userEvent.type(text, '72,5{Enter}');
  expect(onCommit).toHaveBeenLastCalledWith(0.725);
  await userEvent.clear(text);
  await userEvent.type(text, '900{Enter}');
  expect(onCommit).toHaveBeenLastCalledWith(1);
  onCommit.mockClear();
  await userEvent.clear(text);
  await userEvent.type(text, 'much{Enter}');
  expect(onCommit).not.toHaveBeenCalled();
});

it('says why it can do nothing here', () => {
  slider({ idle: 'No effect here.' });
  expect(screen.getByText('No effect here.')).toBeInTheDocument();
});

it('draws a panel from a schema, with every kind of control', () => {
  const onCommit = jest.fn();
  wrap(<Panel schema={laySchema} values={laySchema.parse({})} onCommit={onCommit} />);
  expect(screen.getAllByRole('slider').map((s) => s.getAttribute('aria-label'))).toEqual([
    'Scale',
    'Stretch across',
    'Stretch down',
    'Across',
    'Down',
    'Turn',
  ]);
  expect(screen.getByRole('radio', { name: 'Cover' })).toBeChecked();
  fireEvent.click(screen.getByRole('radio', { name: 'Tile' }));
  expect(onCommit).toHaveBeenCalledWith('fit', 'tile', 'Fit');
  fireEvent.click(screen.getByRole('switch', { name: 'Flip across' }));
  expect(onCommit).toHaveBeenCalledWith('flipX', true, 'Flip across');
});

it('tells that hue has no effect on a material without colour', () => {
  const { schema } = treatmentByKind('tone');
  wrap(<Panel schema={schema} values={{ ...schema.parse({ kind: 'tone' }), saturation: -1 }} onCommit={() => undefined} />);
  expect(screen.getByText(/No effect: the material has no colour left/)).toBeInTheDocument();
});
