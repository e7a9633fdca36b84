'use client';
import { useState } from 'react';
import { useFoundBoards } from '@/features/frame/useFoundBoards';
import { Radio } from '@/ui/Radio';
import { SearchLine } from '@/ui/SearchLine';

/** The same board was here before: found by anything printed on it, copied with all that was traced. */
export function FamilySearch() {
  const [words, setWords] = useState('');
  const found = useFoundBoards(words);
  return (
    <div className="flex flex-col gap-1">
      <SearchLine
        label="Same board, traced before:"
        value={words}
        onType={setWords}
        placeholder="anything printed on it"
      />
      {found.map((f) => (
        <Radio key={f.board_id} value={`job:${f.tag}`} className="ml-4">
          {f.tag}, {f.unit} <span className="text-sm text-faint">{f.parts} parts</span>
        </Radio>
      ))}
      {words.trim().length >= 2 && found.length === 0 && (
        <p className="ml-4 text-sm text-faint">No board with that on it yet.</p>
      )}
    </div>
  );
}
