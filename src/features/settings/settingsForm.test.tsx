/** @jest-environment jsdom */
import { zodResolver } from '@hookform/resolvers/zod';
import { render, screen } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { useForm } from 'react-hook-form';
import { FIRST_SETTINGS, Settings } from '@/wire/settings';
import { FigureSetting } from './FigureSetting';

const kept: Settings[] = [];

function Form() {
  const { control, handleSubmit, setValue } = useForm<Settings>({
    resolver: zodResolver(Settings),
    defaultValues: FIRST_SETTINGS,
  });
  return (
    <form onSubmit={(e) => void handleSubmit((s) => void kept.push(s))(e)} noValidate>
      <FigureSetting control={control} name="meter.diodeAmps" label="Current" unit="A" />
      <FigureSetting control={control} name="derating.fuse" label="Fuse" unit="1" scale={100} />
      <button type="button" onClick={() => setValue('meter.diodeAmps', 0.6e-3)}>
        learned
      </button>
      <button type="submit">Keep</button>
    </form>
  );
}

test('a figure is kept in its unit however it is typed; one that cannot be read is said at its field and keeps the rest', async () => {
  const user = userEvent.setup();
  render(<Form />);
  const current = screen.getByLabelText<HTMLInputElement>('Current');
  expect(current.value).toBe('1\u2009mA');
  await user.clear(current);
  await user.type(current, '4,7 mV');
  expect(screen.getByRole('alert').textContent).toContain('This wants A, not V');
  await user.click(screen.getByRole('button', { name: 'Keep' }));
  expect([kept.length, current.value]).toEqual([0, '4,7 mV']);
  await user.clear(current);
  await user.type(current, '0,5m');
  const fuse = screen.getByLabelText<HTMLInputElement>('Fuse');
  await user.clear(fuse);
  await user.type(fuse, '500');
  await user.click(screen.getByRole('button', { name: 'Keep' }));
  expect((await screen.findByRole('alert')).textContent).toContain('No more than 1');
  expect(kept).toEqual([]);
  await user.clear(fuse);
  await user.type(fuse, '60');
  await user.click(screen.getByRole('button', { name: 'Keep' }));
  expect(kept).toHaveLength(1);
  expect([kept[0]!.meter.diodeAmps, kept[0]!.derating.fuse]).toEqual([0.5e-3, 0.6]);
  // What was learned since is shown in place of what was typed.
  await user.click(screen.getByRole('button', { name: 'learned' }));
  expect(current.value).toBe('600\u2009µA');
});
