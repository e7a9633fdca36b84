import { PaperScreen } from '@/features/schematic/PaperScreen';

export const metadata = { title: 'Drawing' };

export default function DrawingPage() {
  return <PaperScreen />;
}
