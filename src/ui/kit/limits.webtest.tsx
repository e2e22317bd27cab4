import '@testing-library/jest-dom';
import { fireEvent, render, screen } from '@testing-library/react';
import { PaperProvider } from 'react-native-paper';
import { lightTheme } from '../theme';
import { Limits, movedLimit, type LimitValues } from './Limits';

const whole: LimitValues = [0, 0, 1, 1];
const setUp = (value: LimitValues) => {
  const onPreview = jest.fn();
  const onCommit = jest.fn();
  render(
    <PaperProvider theme={lightTheme}>
      <Limits value={value} counts={new Uint32Array(256).fill(3)} onPreview={onPreview} onCommit={onCommit} />
    </PaperProvider>,
  );
  return { onPreview, onCommit };
};

describe('tonal limits', () => {
  it('never pass each other', () => {
    expect(movedLimit(whole, 1, 0.3)).toEqual([0, 0.3, 1, 1]);
    expect(movedLimit([0, 0.3, 0.6, 1], 1, 0.9)).toEqual([0, 0.6, 0.6, 1]);
    expect(movedLimit([0, 0.3, 0.6, 1], 0, 0.5)).toEqual([0.3, 0.3, 0.6, 1]);
    expect(movedLimit(whole, 3, -2)).toEqual([0, 0, 1, 1]);
  });
  it('are moved by the arrow keys, and say where they stand', () => {
    const { onCommit } = setUp([0.1, 0.2, 0.8, 0.9]);
    fireEvent.keyDown(screen.getByRole('slider', { name: 'All from' }), { key: 'ArrowRight' });
    expect(onCommit).toHaveBeenCalledWith([0.1, 0.21, 0.8, 0.9], 'All from');
    expect(screen.getByText('Shows fully from 20 to 80 %, not at all below 10 and above 90 %.')).toBeInTheDocument();
    expect(screen.getByRole('slider', { name: 'Nothing above' })).toHaveAttribute('aria-valuenow', '90');
  });
  it('show while they are dragged and are kept where the pointer lifts', () => {
    const { onPreview, onCommit } = setUp(whole);
    const handle = screen.getByRole('slider', { name: 'All from' });
    handle.setPointerCapture = () => undefined;
    const bar = handle.parentElement!.nextElementSibling as HTMLElement;
    bar.getBoundingClientRect = () => ({ left: 0, width: 200 }) as DOMRect;
    const pointer = (type: string, x: number) => fireEvent(handle, new MouseEvent(type, { bubbles: true, clientX: x }));
    pointer('pointerdown', 0);
    pointer('pointermove', 40);
    expect(onPreview).toHaveBeenLastCalledWith([0, 0.2, 1, 1]);
    expect(onCommit).not.toHaveBeenCalled();
    pointer('pointerup', 50);
    expect(onCommit).toHaveBeenCalledWith([0, 0.25, 1, 1], 'All from');
  });
});
