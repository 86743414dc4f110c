'use client';

import Button from '@mui/material/Button';
import { useWords } from '@/ui/words/use-words';

/** On a narrow screen: shows what stands beside the pages in their place, and the pages again. */
export function AsideToggle({
  isOpen,
  onToggle,
}: {
  readonly isOpen: boolean;
  readonly onToggle: (isOpen: boolean) => void;
}) {
  const { say } = useWords();
  return (
    <Button
      className="narrow-only"
      aria-expanded={isOpen}
      onClick={() => {
        onToggle(!isOpen);
      }}
    >
      {isOpen ? say('reading.backToPages') : say('reading.mayDo')}
    </Button>
  );
}
