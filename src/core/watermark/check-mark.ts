import { newLayer, type MarkLayer } from '@/core/watermark/layers';

function whoLooks(line: string): MarkLayer {
  return { ...newLayer('tiled', line), on: 'both' };
}

/** What stands on a page that a member of staff looks at as a check. */
export function checkMark(name: string, day: string): MarkLayer {
  return whoLooks(`Check by ${name}, ${day}`);
}

/** What stands on a page that is shown as somebody else would see it. */
export function previewMark(name: string): MarkLayer {
  return { ...newLayer('footer', `preview by ${name}`), colour: 'magenta' };
}
