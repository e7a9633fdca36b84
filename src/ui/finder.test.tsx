/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { useState } from 'react';
import { Finder } from './Finder';
import type { FoundGroup } from './Finder';

const ALL = ['C1', 'C10', 'R7', 'U1'];
const taken: string[] = [];

function Parts({ heading }: { heading: string | null }) {
  const [wanted, setWanted] = useState('');
  const items = ALL.filter((p) => p.toLowerCase().includes(wanted.toLowerCase()));
  const groups: readonly FoundGroup<string>[] = items.length > 0 ? [{ heading, items }] : [];
  return (
    <Finder
      label="Find a part"
      placeholder="R7"
      wanted={wanted}
      onWanted={setWanted}
      groups={groups}
      keyOf={(p) => p}
      row={(p) => p}
      onTake={(p) => taken.push(p)}
      empty="None is called that."
    />
  );
}

beforeEach(() => {
  taken.length = 0;
  globalThis.ResizeObserver ??= class {
    observe(): void {}
    unobserve(): void {}
    disconnect(): void {}
  } as never;
  Element.prototype.scrollIntoView ??= () => {};
});

test.each([null, 'Parts'])(
  'what is typed narrows the list, arrows walk it round, Enter takes one; under a heading: %s',
  async (heading) => {
    const user = userEvent.setup();
    render(<Parts heading={heading} />);
    const field = screen.getByRole('combobox', { name: 'Find a part' });
    expect(document.activeElement).toBe(field);
    expect(screen.queryByText('Parts') !== null).toBe(heading !== null);
    await user.keyboard('c1');
    expect(screen.getAllByRole('option').map((o) => o.textContent)).toEqual(['C1', 'C10']);
    await user.keyboard('{ArrowDown}{Enter}');
    await user.keyboard('{ArrowDown}{Enter}');
    expect(taken).toEqual(['C10', 'C1']);
    await user.clear(field);
    await user.click(screen.getByRole('option', { name: 'U1' }));
    expect(taken).toEqual(['C10', 'C1', 'U1']);
    await user.type(field, 'zz');
    expect(screen.queryAllByRole('option')).toEqual([]);
    expect(screen.getByText('None is called that.')).toBeTruthy();
  },
);
