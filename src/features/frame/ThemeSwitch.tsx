'use client';

/** Switches between soot and paper; remembered. */
export function ThemeSwitch() {
  const flip = (): void => {
    const next = document.documentElement.dataset['theme'] === 'paper' ? 'soot' : 'paper';
    document.documentElement.dataset['theme'] = next;
    window.localStorage.setItem('theme', next);
  };
  return (
    <button
      type="button"
      onClick={flip}
      className="rounded-sm border border-line px-2 py-0.5 text-sm text-faint hover:text-ink"
      aria-label="Switch between dark and light"
    >
      ◐
    </button>
  );
}
