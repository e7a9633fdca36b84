'use client';
import { useState } from 'react';
import { useFoundBoards } from '@/features/frame/useFoundBoards';

/** The same board was here before: found by anything printed on it, copied with all that was traced. */
export function FamilySearch({ chosen, onChoose }: { chosen: string | null; onChoose(tag: string): void }) {
  const [words, setWords] = useState('');
  const found = useFoundBoards(words);
  return (
    <div className="flex flex-col gap-1">
      <label className="flex items-center gap-2">
        <span className="shrink-0">Same board, traced before:</span>
        <input
          type="search"
          value={words}
          onChange={(e) => setWords(e.target.value)}
          placeholder="anything printed on it"
          className="min-w-0 grow rounded-sm border border-line bg-ground px-2 py-0.5 placeholder:text-faint"
        />
      </label>
      {found.map((f) => (
        <label key={f.board_id} className="ml-4 flex items-baseline gap-2">
          <input type="radio" name="board" checked={chosen === f.tag} onChange={() => onChoose(f.tag)} />
          <span>
            {f.tag}, {f.unit} <span className="text-sm text-faint">{f.parts} parts</span>
          </span>
        </label>
      ))}
      {words.trim().length >= 2 && found.length === 0 && (
        <p className="ml-4 text-sm text-faint">No board with that on it yet.</p>
      )}
    </div>
  );
}
