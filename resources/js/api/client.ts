import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Shapes = components['schemas'];
export type Problem = Shapes['ProblemDocument'] & Record<string, unknown>;

/** A refusal of the server, with its problem document. */
export class Refusal extends Error {
    constructor(public readonly problem: Problem) {
        super(problem.title);
    }

    /** The message for one place, such as "/values/due". */
    at(place: string): string | undefined {
        return this.problem.problems.find((problem) => problem.at === place)?.message;
    }
}

function cookie(name: string): string {
    const found = document.cookie.split('; ').find((pair) => pair.startsWith(`${name}=`));
    return found ? decodeURIComponent(found.slice(name.length + 1)) : '';
}

export const api = createClient<paths>({ headers: { Accept: 'application/json' } });

api.use({
    async onRequest({ request }) {
        if (request.method !== 'GET') {
            if (!cookie('XSRF-TOKEN')) await fetch('/session/cookie');
            request.headers.set('X-XSRF-TOKEN', cookie('XSRF-TOKEN'));
        }
        return request;
    },
});

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** The answer of a call, or its refusal thrown. */
export async function ask<T>(call: Promise<Answer<T>>): Promise<T> {
    let answer: Answer<T>;
    try {
        answer = await call;
    } catch {
        throw new Refusal(unreachable());
    }
    if (answer.response.ok) return answer.data as T;
    const problem = answer.error as Partial<Problem> | undefined;
    throw new Refusal({ ...unreachable(), title: 'The server could not answer. Please try again.', problems: [], ...problem } as Problem);
}

function unreachable(): Problem {
    return {
        type: 'about:blank',
        title: 'The server cannot be reached. Nothing was changed.',
        status: 0,
        code: 'unreachable',
        problems: [],
    };
}

/** What to tell a person about anything that was thrown. */
export function said(thrown: unknown): string {
    return thrown instanceof Error ? thrown.message : 'Something went wrong.';
}
