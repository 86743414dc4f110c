import { answerConsentInput } from '@/contracts/keys';
import { handle } from '@/server/http/handle';
import { answerConsent } from '@/server/services/destroy-keys';

export const POST = handle('destroy-key', answerConsentInput, answerConsent);
