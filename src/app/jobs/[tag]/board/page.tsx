import { BoardScreen } from '@/features/board/BoardScreen';

export default function BoardPage() {
  return <BoardScreen />;
}
