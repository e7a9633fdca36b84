import type { Instrumentation } from 'next';

/** Trouble in making a page is written down with its cause; the interfaces write theirs in `api/handle`. */
export const onRequestError: Instrumentation.onRequestError = async (error, request, context) => {
  if (process.env['NEXT_RUNTIME'] !== 'nodejs') return;
  const { log } = await import('@/data/log');
  log().error({ err: error, path: request.path.split('?')[0], route: context.routePath }, 'a page could not be made');
};
