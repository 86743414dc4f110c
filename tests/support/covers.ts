import { createCovers } from '@/server/covers/covers';
import type { CoverFacts } from '@/core/wrapper/cover';

export const covers = createCovers('node_modules/@fontsource/atkinson-hyperlegible-next/files');

export const coverFacts: Omit<CoverFacts, 'code'> = {
  organisation: 'Tern & Quill Naval Architects',
  sender: 'Ida Roe',
  senderAddress: 'ida.roe@tern-quill.example',
  reference: 'TQ-412-001',
  title: 'General arrangement',
  sentTo: 'Brackwater Yard',
  link: 'https://embargo.tern-quill.example/r/0123456789abcdefghjkmnpq',
  language: 'en',
  createdAt: Date.UTC(2026, 10, 25),
};
