import { configure } from '@testing-library/react';

// What is waited for comes from a server, from what stands in for a worker, or from a timer, on a machine that may be busy.
configure({ asyncUtilTimeout: 30_000 });
