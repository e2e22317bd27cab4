import '@testing-library/jest-dom';
import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { PaperProvider } from 'react-native-paper';
import { lightTheme } from '../theme';
import { Choice } from './Choice';
import { PopUp } from './PopUp';

function Asked({ onClose }: { onClose(): void }) {
  const [open, setOpen] = useState(false);
  return (
    <PaperProvider theme={lightTheme}>
      <button type="button" onClick={() => setOpen(true)}>
        Ask
      </button>
      <PopUp
        label="Make room"
        visible={open}
        onClose={() => {
          setOpen(false);
          onClose();
        }}
      >
        <button type="button">First</button>
        <button type="button">Last</button>
      </PopUp>
    </PaperProvider>
  );
}

describe('a dialog', () => {
  it('is named, takes the keyboard, and closes by Esc', () => {
    const onClose = jest.fn();
    render(<Asked onClose={onClose} />);
    fireEvent.click(screen.getByText('Ask'));
    const dialog = screen.getByRole('dialog', { name: 'Make room' });
    expect(dialog).toHaveAttribute('aria-modal', 'true');
    expect(dialog.contains(document.activeElement)).toBe(true);
    fireEvent.keyDown(dialog, { key: 'Escape' });
    expect(onClose).toHaveBeenCalledTimes(1);
  });
});

describe('one of a few', () => {
  const options = [
    { value: 'a', label: 'Full' },
    { value: 'b', label: 'Half' },
    { value: 'c', label: 'Quarter' },
  ] as const;

  it('has one Tab stop, and arrows go along it, over its ends too', () => {
    const onChange = jest.fn();
    render(
      <PaperProvider theme={lightTheme}>
        <Choice label="Size" options={options} value="c" onChange={onChange} />
      </PaperProvider>,
    );
    const radios = screen.getAllByRole('radio');
    expect(radios.map((r) => r.tabIndex)).toEqual([-1, -1, 0]);
    fireEvent.keyDown(radios[2], { key: 'ArrowRight' });
    expect(onChange).toHaveBeenLastCalledWith('a');
    expect(document.activeElement).toBe(radios[0]);
    fireEvent.keyDown(radios[2], { key: 'ArrowLeft' });
    expect(onChange).toHaveBeenLastCalledWith('b');
    fireEvent.keyDown(radios[2], { key: 'x' });
    expect(onChange).toHaveBeenCalledTimes(2);
  });
});
