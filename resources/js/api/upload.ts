import { Refusal, type Problem } from './client';

/** Sends one file as a form, with what else goes with it; the generated client only speaks JSON. */
export async function upload<T = unknown>(path: string, file: File, besides: Record<string, string> = {}): Promise<T> {
    if (!document.cookie.includes('XSRF-TOKEN=')) await fetch('/session/cookie');
    const token = document.cookie.split('; ').find((pair) => pair.startsWith('XSRF-TOKEN='));
    const form = new FormData();
    form.append('file', file);
    for (const [name, value] of Object.entries(besides)) form.append(name, value);
    const answer = await fetch(path, {
        method: 'POST',
        body: form,
        headers: { Accept: 'application/json', 'X-XSRF-TOKEN': decodeURIComponent(token?.slice(11) ?? '') },
    });
    const said = (await answer.json().catch(() => null)) as unknown;
    if (!answer.ok) throw new Refusal((said ?? { detail: 'The server could not answer. Please try again.', problems: [] }) as Problem);
    return said as T;
}
