/** Our sign of live volts: a bolt, drawn so that no phone puts a coloured picture in its place. */
export function Bolt({ words }: { words?: string }) {
  return (
    <svg
      viewBox="0 0 12 16"
      fill="currentColor"
      className="inline-block h-[1em] w-[0.75em] align-[-0.12em]"
      {...(words === undefined ? { 'aria-hidden': true } : { role: 'img', 'aria-label': words })}
    >
      <path d="M7.5 0 0 9.2h4.6L3.4 16 12 6.1H7z" />
    </svg>
  );
}
