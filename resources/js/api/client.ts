import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Resources = components['schemas'];
/** What is posted to a path. */
export type Posted<Path extends keyof paths> = paths[Path] extends {
    post: { requestBody: { content: { 'application/json': infer Body } } };
}
    ? Body
    : never;
export type Problem = Resources['ProblemDocument'] & Record<string, unknown>;

/** A refusal of the server, with its problem document. */
export class Refusal extends Error {
    constructor(public readonly problem: Problem) {
        super(problem.detail);
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

const heard: ((path: string) => void)[] = [];

/** Tells somebody which address something was sent to that may have changed something. */
export function afterChanges(tell: (path: string) => void): void {
    heard.push(tell);
}

function tellOf({ url }: { url: string }): void {
    for (const tell of heard) tell(new URL(url, location.href).pathname);
}

/** What lets a request of the browser change something. */
async function pass(): Promise<Record<string, string>> {
    if (!cookie('XSRF-TOKEN')) await fetch('/session/cookie');
    return { 'X-XSRF-TOKEN': cookie('XSRF-TOKEN') };
}

/**
 * A request whose body is no JSON, such as a file, with what lets it change something.
 *
 * @throws Refusal with what the server said
 */
export async function sendRaw(path: string, request: { method: 'POST' | 'PUT'; body: BodyInit; type?: string }): Promise<Response> {
    const ask = async () =>
        fetch(path, {
            method: request.method,
            body: request.body,
            headers: { Accept: 'application/json', ...(request.type ? { 'Content-Type': request.type } : {}), ...(await pass()) },
        });
    let answer = await ask();
    if (answer.status === 419) {
        await fetch('/session/cookie');
        answer = await ask();
    }
    if (answer.ok) return answer;
    const problem = (await answer.json().catch(() => null)) as Problem | null;
    throw new Refusal(problem ?? ({ detail: 'The server could not answer. Please try again.', problems: [] } as unknown as Problem));
}

/** Requests that change something, as long as they are under way. */
const sent = new Map<string, Request>();

api.use({
    async onRequest({ id, request }) {
        if (request.method !== 'GET') {
            for (const [name, value] of Object.entries(await pass())) request.headers.set(name, value);
            sent.set(id, request.clone());
        }
        return request;
    },
    async onResponse({ id, response }) {
        const request = sent.get(id);
        sent.delete(id);
        if (request && response.ok) tellOf(request);
        // The token was of a session that has ended meanwhile, perhaps in another window; nothing was done, so it is asked once more.
        if (response.status !== 419 || !request) return response;
        await fetch('/session/cookie');
        request.headers.set('X-XSRF-TOKEN', cookie('XSRF-TOKEN'));
        const again = await fetch(request);
        if (again.ok) tellOf(request);
        return again;
    },
    onError({ id }) {
        sent.delete(id);
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
    throw new Refusal({ ...unreachable(), detail: 'The server could not answer. Please try again.', problems: [], ...problem } as Problem);
}

function unreachable(): Problem {
    return {
        type: 'about:blank',
        title: '',
        status: 0,
        detail: 'The server cannot be reached. Nothing was changed.',
        code: 'unreachable',
        problems: [],
    };
}

/** What to tell a person about anything that was thrown. */
export function said(thrown: unknown): string {
    return thrown instanceof Error ? thrown.message : 'Something went wrong.';
}

export type Answered = { status: number; text: string; milliseconds: number };

/** Sends whatever somebody wants to try, as they are signed in, and gives back what came, be it an answer or a refusal. */
export async function send(method: string, path: string, body?: string): Promise<Answered> {
    const headers: Record<string, string> = { Accept: 'application/json', ...(method === 'GET' ? {} : await pass()) };
    if (body !== undefined) headers['Content-Type'] = 'application/json';
    const began = performance.now();
    const response = await fetch(path, { method, headers, body }).catch(() => {
        throw new Refusal(unreachable());
    });
    if (method !== 'GET' && response.ok) tellOf({ url: path });
    return { status: response.status, text: await response.text(), milliseconds: Math.round(performance.now() - began) };
}

/** Asks for an answer that comes line by line; whoever has seen enough aborts. */
export async function stream<T>(path: string, body: unknown, onpiece: (piece: T) => void, signal: AbortSignal): Promise<void> {
    const headers = { Accept: 'application/json', 'Content-Type': 'application/json', ...(await pass()) };
    const response = await fetch(path, { method: 'POST', headers, body: JSON.stringify(body), signal });
    if (!response.ok || !response.body) {
        const problem = (await response.json().catch(() => ({}))) as Partial<Problem>;
        throw new Refusal({ ...unreachable(), detail: 'The server could not answer. Please try again.', ...problem } as Problem);
    }
    const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
    for (let rest = ''; ;) {
        const { done, value } = await reader.read();
        if (done) return;
        const lines = (rest + value).split('\n');
        rest = lines.pop() ?? '';
        for (const line of lines) onpiece(JSON.parse(line) as T);
    }
}
