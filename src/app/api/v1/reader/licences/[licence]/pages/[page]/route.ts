import { pagePicture } from '@/server/http/page-picture';

export const GET = pagePicture;
