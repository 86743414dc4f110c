import { OpenFile } from '@/ui/reader/open-file';

export default function OpenFilePage() {
  return <OpenFile />;
}
