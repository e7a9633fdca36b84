import { BoardScreen } from '@/features/board/BoardScreen';

export const metadata = { title: 'Trace' };

export default function BoardPage() {
  return <BoardScreen />;
}
