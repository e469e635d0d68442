import createClient, { type Middleware } from 'openapi-fetch';
import type { components, paths } from './generated/schema';

export type Schemas = components['schemas'];
export type SheetRow = Schemas['SheetRow'];
export type ItemKind = Schemas['ItemKind'];
export type MatchType = NonNullable<Schemas['MatchType']>;
export type ItemState = NonNullable<Schemas['ItemState']>;
export type Command = Schemas['Command'];
export type ItemReference = Schemas['ItemReference'];
export type Session = Schemas['Session'];
export type AccountSummary = Schemas['AccountSummary'];
export type Job = Schemas['JobView'];

/** What went wrong, in words for a person, with the fields at fault. */
export class ApiProblem extends Error {
  readonly status: number;
  readonly fields: Record<string, string[]>;
  /** Items that somebody else changed meanwhile. */
  readonly conflicts: readonly Conflict[];

  constructor(
    status: number,
    title: string,
    fields: Record<string, string[]>,
    conflicts: readonly Conflict[] = [],
  ) {
    super(title);
    this.status = status;
    this.fields = fields;
    this.conflicts = conflicts;
  }
}

/** An item that somebody changed while another edited it, field by field. */
export interface Conflict {
  kind: ItemKind;
  id: number;
  name: string;
  person: string;
  label: string;
  version: number;
  differences: Schemas['FieldDifference'][];
}

let token = '';

/** The token that requests which change something must carry; it comes with the session. */
export function keepToken(next: string) {
  token = next;
}

export function requestToken() {
  return token;
}

const withToken: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-Fendrik-Token', token);
    return request;
  },
};

export const api = createClient<paths>({ baseUrl: window.location.origin });
api.use(withToken);

interface ProblemDetails {
  title?: string | null;
  errors?: Record<string, string[]>;
  conflicts?: Conflict[];
}

export function problemOf(status: number, error: unknown): ApiProblem {
  const details = (typeof error === 'object' && error !== null ? error : {}) as ProblemDetails;
  return new ApiProblem(
    status,
    details.title ??
      (status === 0
        ? 'Fendrik does not answer. Check that it is running.'
        : `The request failed (${status}).`),
    details.errors ?? {},
    details.conflicts ?? [],
  );
}

/** The data of an answer; throws an {@link ApiProblem} for anything else. */
export async function answer<T>(
  request: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  let result;
  try {
    result = await request;
  } catch {
    throw problemOf(0, null);
  }
  if (!result.response.ok) throw problemOf(result.response.status, result.error);
  return result.data as T;
}
