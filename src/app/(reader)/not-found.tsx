import { NothingHere } from '@/ui/reader/nothing-here';

export default function NotFound() {
  return <NothingHere />;
}
