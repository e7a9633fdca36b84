/** Names under which the application answers: this machine's own, and what LANTERN_HOSTS adds, parted by commas. */
const OWN = ['127.0.0.1', 'localhost', '[::1]'];
/** No request is longer: a whole job with its photographs is the longest. */
const MOST_BYTES = 65_000_000;
/** Longer bodies wait for one of a few places, so that many at once are worked one after the other. */
const LARGE_BYTES = 500_000;
const PLACES = 3;
const MOST_WAITING = 100;
/** What is too long is read and thrown away up to here, so that its sender hears why; then the line is cut. */
const MOST_DRAINED = 80_000_000;

/**
 * What stands before the application on every route: only known host names, no broken address, no endless body, and
 * large bodies in turn. Gives a request listener around the application's own.
 */
export function door(handler, hosts = process.env.LANTERN_HOSTS ?? '') {
  const allowed = new Set([...OWN, ...hosts.split(',')].map((h) => h.trim().toLowerCase()).filter(Boolean));
  const waiting = [];
  let taken = 0;
  const free = () => {
    taken--;
    // One that has gone away while it waited is passed over.
    for (let next = waiting.shift(); next; next = waiting.shift()) if (next()) return;
  };
  const inTurn = (request, response) => {
    const go = () => {
      if (response.destroyed) return false;
      taken++;
      response.once('close', free);
      void handler(request, response);
      return true;
    };
    if (taken < PLACES) go();
    else if (waiting.length < MOST_WAITING) waiting.push(go);
    else refuse(request, response, 503, BUSY);
  };
  return (request, response) => {
    const host = (request.headers.host ?? '').toLowerCase().replace(/:\d+$/u, '');
    if (!allowed.has(host)) return refuse(request, response, 421, FOREIGN);
    if (!readable(request.url ?? '')) return refuse(request, response, 400, BROKEN);
    const length = Number(request.headers['content-length'] ?? 0);
    if (length > MOST_BYTES) return refuse(request, response, 413, TOO_LARGE);
    if (length > LARGE_BYTES || request.headers['transfer-encoding'] !== undefined) return inTurn(request, response);
    void handler(request, response);
  };
}

const FOREIGN = {
  code: 'foreign-host',
  sentence: 'The application does not answer under this name.',
  remedy: 'Use its address as it was printed at the start, or name this one in LANTERN_HOSTS.',
};
const BROKEN = {
  code: 'bad-address',
  sentence: 'This address has a broken escape in it.',
  remedy: 'Go back to the bench.',
};
const TOO_LARGE = {
  code: 'too-large',
  sentence: `This is larger than ${MOST_BYTES / 1e6} MB.`,
  remedy: 'Nothing was taken. Send a smaller file.',
};
const BUSY = {
  code: 'busy',
  sentence: 'Too many large files are being sent at once.',
  remedy: 'Nothing was taken. Send it again in a moment.',
};

/** Answers with a problem once the body is through: one cut off in the middle of sending never hears the reason. */
function refuse(request, response, status, problem) {
  let drained = 0;
  const answer = () => {
    if (response.headersSent) return;
    response.writeHead(status, { 'content-type': 'application/json', connection: 'close' });
    response.end(JSON.stringify({ problem }));
  };
  request.on('data', (chunk) => {
    drained += chunk.length;
    if (drained <= MOST_DRAINED) return;
    answer();
    request.destroy();
  });
  request.on('end', answer);
  request.on('error', () => response.destroy());
}

function readable(url) {
  try {
    decodeURIComponent(url.split('?')[0]);
    return true;
  } catch {
    return false;
  }
}
