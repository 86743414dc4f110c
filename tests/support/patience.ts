// Parts that are fetched when they are opened take their time where other tests run beside them.
import { configure } from '@testing-library/react';

configure({ asyncUtilTimeout: 10_000 });
