import type { RequestHandler } from 'express';
import rateLimit from 'express-rate-limit';
import helmet from 'helmet';
import { ApiError } from '../errors';

/** Headers for a program that loads nothing from elsewhere; it is used in a shop by plain http too. */
export const securityHeaders = (): RequestHandler =>
  helmet({
    contentSecurityPolicy: {
      directives: {
        'default-src': ["'self'"],
        'style-src': ["'self'", "'unsafe-inline'"],
        'img-src': ["'self'", 'data:', 'blob:'],
        'worker-src': ["'self'", 'blob:'],
        'frame-ancestors': ["'none'"],
        'upgrade-insecure-requests': null,
      },
    },
    strictTransportSecurity: false,
  });

/** @param aMinute requests from one address */
export const limitRequests = (aMinute: number): RequestHandler =>
  rateLimit({
    windowMs: 60_000,
    limit: aMinute,
    legacyHeaders: false,
    handler: () => {
      throw new ApiError('tooMany');
    },
  });
