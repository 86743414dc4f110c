import { z } from 'zod';

const line = z.union([
  z.object({ key: z.string() }),
  z.object({ size: z.number().int(), text: z.string() }),
  z.object({ restoredTo: z.number().int() }),
]);

/** A line of a witness file: the key that signs, in base64; a signed checkpoint; where a restore went back to. */
export type WitnessLine = z.infer<typeof line>;

/** Reads a line; `null` where it is empty, or was cut off while it was written. */
export function parseWitnessLine(text: string): WitnessLine | null {
  try {
    return line.parse(JSON.parse(text));
  } catch {
    return null;
  }
}
