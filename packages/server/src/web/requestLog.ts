import type { RequestHandler } from 'express';
import type { Logger } from 'pino';

/** One line a request: method, the route (not the address, which may hold what a user typed), status, time. */
export function requestLog(log: Logger): RequestHandler {
  return (req, res, next) => {
    const from = process.hrtime.bigint();
    res.on('finish', () => {
      const ms = Number((process.hrtime.bigint() - from) / 1000n) / 1000;
      const path = (req.route as { path?: string } | undefined)?.path;
      log.info(
        {
          method: req.method,
          route: path === undefined ? undefined : `${req.baseUrl.startsWith('/api/plans') ? '/api/plans' : req.baseUrl}${path}`,
          status: res.statusCode,
          ms,
        },
        'request',
      );
    });
    next();
  };
}
