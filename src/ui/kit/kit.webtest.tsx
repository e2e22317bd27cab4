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
  fireEvent.keyUp(range);
  expect(onCommit).toHaveBeenCalledTimes(1);
  expect(onCommit).toHaveBeenCalledWith(0.6);
});

/** A pointer on the track, whose middle lies at y = 20 and whose thumb travels 200 px. */
function finger(range: HTMLElement, pointerType = 'touch') {
  const track = range.parentElement as HTMLElement;
  track.getBoundingClientRect = () => ({ left: 0, width: 220, top: 0, height: 40 }) as DOMRect;
  return (type: string, clientX: number, clientY = 20) =>
    fireEvent(track, Object.assign(new MouseEvent(type, { bubbles: true, clientX, clientY }), { pointerType, pointerId: 1 }));
}
// The thumb of 40 % lies at 10 + 80 px.

it('keeps its thumb under the finger, slow or quick, and past the end too', () => {
  const { range, onPreview, onCommit } = slider();
  const at = finger(range);
  at('pointerdown', 90);
  at('pointermove', 120);
  expect(onPreview.mock.lastCall[0]).toBeCloseTo(0.55, 6);
  for (let x = 121; x <= 150; x++) at('pointermove', x);
  expect(onPreview.mock.lastCall[0]).toBeCloseTo(0.7, 6);
  at('pointermove', 400);
  expect(onPreview.mock.lastCall[0]).toBe(1);
  at('pointermove', 110);
  at('pointerup', 110);
  expect(onCommit.mock.calls).toEqual([[0.5]]);
});

it('moves a quarter as far when the finger is away from the track', () => {
  const { range, onPreview } = slider();
  const at = finger(range);
  at('pointerdown', 90);
  at('pointermove', 92);
  at('pointermove', 132, 100);
  expect(onPreview.mock.lastCall[0]).toBeCloseTo(0.46, 6);
});

it('changes nothing by a swipe that scrolls, beside the thumb or on it', () => {
  const { range, onPreview, onCommit } = slider();
  const at = finger(range);
  // Beside the thumb: up, and a little sideways.
  at('pointerdown', 180);
  at('pointermove', 184, 0);
  at('pointermove', 186, -80);
  at('pointerup', 186, -80);
  expect(onPreview).not.toHaveBeenCalled();
  // On the thumb: up first.
  at('pointerdown', 92);
  at('pointermove', 95, 0);
  at('pointermove', 99, -80);
  at('pointerup', 99, -80);
  expect(onPreview).not.toHaveBeenCalled();
  // On the thumb: the browser takes the pointer for scrolling.
  at('pointerdown', 92);
  at('pointermove', 95, 18);
  at('pointercancel', 95, 4);
  expect(onPreview).toHaveBeenLastCalledWith(0.4);
  expect(onCommit).not.toHaveBeenCalled();
});

it('goes where it is tapped; a second tap resets it', () => {
  const { range, onCommit } = slider();
  const at = finger(range);
  at('pointerdown', 170);
  at('pointerup', 170);
  expect(onCommit).toHaveBeenLastCalledWith(0.8);
  at('pointerdown', 170);
  at('pointerup', 170);
  expect(onCommit).toHaveBeenLastCalledWith(1);
});

it('jumps to a mouse and follows it', () => {
  const { range, onCommit } = slider();
  const at = finger(range, 'mouse');
  at('pointerdown', 170);
  at('pointermove', 150);
  at('pointerup', 150);
  expect(onCommit.mock.calls).toEqual([[0.7]]);
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
  fireEvent.click(screen.getByRole('switch', { name: 'Flip horizontal' }));
  expect(onCommit).toHaveBeenCalledWith('flipX', true, 'Flip horizontal');
});

it('tells that hue has no effect on a material without colour', () => {
  const { schema } = treatmentByKind('tone');
  wrap(<Panel schema={schema} values={{ ...schema.parse({ kind: 'tone' }), saturation: -1 }} onCommit={() => undefined} />);
  expect(screen.getByText(/No effect: the material has no colour left/)).toBeInTheDocument();
});
