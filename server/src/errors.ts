/** Every error the server answers with: code, status, and words for the person. */
export const ERRORS = {
  'bad-request': { status: 400, message: 'This request can’t be understood.' },
  'not-json': { status: 415, message: 'Changes are taken as JSON only.' },
  'other-origin': { status: 403, message: 'Changes are taken only from Ursprung’s own page.' },
  'not-found': { status: 404, message: 'This is not here, or no longer.' },
  'too-large': { status: 413, message: 'This is more than 5 MB. Paste the part you need.' },
  'link-refused': { status: 422, message: 'This link can’t be read.' },
  'source-unreadable': { status: 422, message: 'This can’t be read as a source.' },
  'length-not-possible': { status: 422, message: 'This source does not fit the length.' },
  'step-refused': { status: 422, message: 'This change does not fit the script.' },
  'script-broken': {
    status: 422,
    message:
      'What is stored of this script can’t be read. It is kept as it is; other scripts are not touched.',
  },
  behind: { status: 409, message: 'The script has changed elsewhere since.' },
  'settings-behind': { status: 409, message: 'These settings were changed elsewhere since.' },
  'service-silent': { status: 502, message: 'The text service gave no answer.' },
  'service-limit': { status: 409, message: 'The month’s limit for the text service is reached.' },
  'no-secret': {
    status: 409,
    message:
      'This server has no secret to keep a key with. Set URSPRUNG_SECRET, or give the service by environment.',
  },
  'too-many': { status: 429, message: 'Too many requests at once. Wait a moment and try again.' },
  away: {
    status: 503,
    message:
      'The database can’t be reached just now. What you wrote is kept here; it is sent again by itself.',
  },
  full: {
    status: 503,
    message:
      'The server’s disk is full, so nothing can be written. What you wrote is kept here; free some room there.',
  },
  busy: { status: 503, message: 'This took too long and was stopped. Nothing is lost; try again.' },
  internal: {
    status: 500,
    message: 'Something went wrong on the server. Nothing you wrote is lost; try again.',
  },
} as const;

export type ErrorCode = keyof typeof ERRORS;

export class ApiError extends Error {
  override name = 'ApiError';
  constructor(
    readonly code: ErrorCode,
    message?: string,
    readonly extra: Record<string, unknown> = {},
  ) {
    super(message ?? ERRORS[code].message);
  }
}
