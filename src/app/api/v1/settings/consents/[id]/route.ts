import { answerConsentInput } from '@/contracts/keys';
import { handle } from '@/server/http/handle';
import { answerConsent } from '@/server/services/consents/answer-consents';

export const POST = handle('dispatch', answerConsentInput, answerConsent);
