import '@testing-library/jest-dom';
import { fireEvent, render, screen } from '@testing-library/react';
import { FailedScreen } from './FailedScreen';

it('says that the work is kept, what failed, and tries again', () => {
  const retry = jest.fn(async () => undefined);
  render(<FailedScreen error={new Error('The list is no list.')} retry={retry} />);
  expect(screen.getByRole('alert')).toHaveTextContent(/Your pieces are kept in this browser.*The list is no list\./);
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
  expect(retry).toHaveBeenCalledTimes(1);
});
