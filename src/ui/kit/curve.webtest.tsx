import '@testing-library/jest-dom';
import { fireEvent, render, screen } from '@testing-library/react';
import { PaperProvider } from 'react-native-paper';
import type { CurvePoint } from '@/core/treatments/curves';
import { lightTheme } from '../theme';
import { Curve } from './Curve';

const straight: CurvePoint[] = [
  [0, 0],
  [1, 1],
];

function setUp(points: CurvePoint[]) {
  const onPreview = jest.fn();
  const onCommit = jest.fn();
  render(
    <PaperProvider theme={lightTheme}>
      <Curve label="All channels" points={points} onPreview={onPreview} onCommit={onCommit} />
    </PaperProvider>,
  );
  const box = screen.getByTestId('curve-All channels');
  box.getBoundingClientRect = () => ({ left: 0, top: 0, width: 200, height: 100 }) as DOMRect;
  box.setPointerCapture = () => undefined;
  const pointer = (type: string, x: number, y: number) =>
    fireEvent(box, new MouseEvent(type, { bubbles: true, clientX: 200 * x, clientY: 100 * (1 - y) }));
  return { box, pointer, onPreview, onCommit };
}

it('a press on the line adds a point, which is dragged and kept when it is let go', () => {
  const { pointer, onPreview, onCommit } = setUp(straight);
  pointer('pointerdown', 0.5, 0.5);
  expect(onPreview).toHaveBeenLastCalledWith([
    [0, 0],
    [0.5, 0.5],
    [1, 1],
  ]);
  pointer('pointermove', 0.4, 0.7);
  expect(onCommit).not.toHaveBeenCalled();
  pointer('pointerup', 0.4, 0.7);
  expect(onCommit).toHaveBeenCalledWith([
    [0, 0],
    [0.4, 0.7],
    [1, 1],
  ]);
});

it('a point stays between its neighbours and within the sheet', () => {
  const { pointer, onCommit } = setUp([
    [0, 0],
    [0.3, 0.2],
    [0.6, 0.8],
    [1, 1],
  ]);
  pointer('pointerdown', 0.3, 0.2);
  pointer('pointermove', 0.9, 1.4);
  pointer('pointerup', 0.9, 1.4);
  expect(onCommit.mock.lastCall[0][1]).toEqual([0.58, 1]);
});

it('the ends move inwards: that is where black and white begin', () => {
  const { pointer, onCommit } = setUp(straight);
  pointer('pointerdown', 0, 0);
  pointer('pointermove', 0.2, 0);
  pointer('pointerup', 0.2, 0);
  expect(onCommit).toHaveBeenCalledWith([
    [0.2, 0],
    [1, 1],
  ]);
});

it('by keys: arrows move a point, Delete takes it away, the ends stay', () => {
  const { onCommit } = setUp([
    [0, 0],
    [0.5, 0.6],
    [1, 1],
  ]);
  const middle = screen.getByRole('button', { name: 'All channels: point 2, 50 % becomes 60 %' });
  fireEvent.keyDown(middle, { key: 'ArrowUp' });
  expect(onCommit.mock.lastCall[0][1]).toEqual([0.5, 0.61]);
  fireEvent.keyDown(middle, { key: 'ArrowLeft', shiftKey: true });
  expect(onCommit.mock.lastCall[0][1]).toEqual([0.45, 0.6]);
  fireEvent.keyDown(middle, { key: 'Delete' });
  expect(onCommit).toHaveBeenLastCalledWith(straight);
  onCommit.mockClear();
  fireEvent.keyDown(screen.getByRole('button', { name: 'All channels: point 1, 0 % becomes 0 %' }), { key: 'Delete' });
  expect(onCommit).not.toHaveBeenCalled();
});

it('a press without a move on a point changes nothing', () => {
  const { pointer, onCommit } = setUp(straight);
  pointer('pointerdown', 1, 1);
  pointer('pointerup', 1, 1);
  expect(onCommit).not.toHaveBeenCalled();
});

it('its ends swap with a press: what was dark becomes light, and what lies behind it is drawn', () => {
  const onCommit = jest.fn();
  const counts = Array.from({ length: 256 }, (_, i) => (i === 100 ? 900 : 0));
  const { container } = render(
    <PaperProvider theme={lightTheme}>
      <Curve
        label="All channels"
        points={[
          [0, 0.1],
          [0.4, 0.7],
          [1, 1],
        ]}
        counts={counts}
        onPreview={jest.fn()}
        onCommit={onCommit}
      />
    </PaperProvider>,
  );
  expect(container.querySelector('path')?.getAttribute('d')).toMatch(/L39\.2 8\.0/);
  fireEvent.click(screen.getByRole('button', { name: 'Swap the ends of all channels' }));
  expect(onCommit).toHaveBeenCalledWith([
    [0, 0.9],
    [0.4, 0.3],
    [1, 0],
  ]);
});
