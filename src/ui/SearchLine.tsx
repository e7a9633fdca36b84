'use client';

/** Words to look for, with what is looked for before them. */
export function SearchLine({
  label,
  value,
  placeholder,
  onType,
}: {
  label: string;
  value: string;
  placeholder: string;
  onType(value: string): void;
}) {
  return (
    <label className="flex items-center gap-2">
      <span className="shrink-0">{label}</span>
      <input
        type="search"
        value={value}
        onChange={(e) => onType(e.target.value)}
        placeholder={placeholder}
        className="min-w-0 grow rounded-sm border border-line bg-ground px-2 py-0.5 placeholder:text-faint"
      />
    </label>
  );
}
