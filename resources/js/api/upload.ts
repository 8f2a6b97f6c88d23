import { Refusal, type Problem } from './client';

/** Sends one file as a form; the generated client only speaks JSON. */
export async function upload(path: string, file: File): Promise<void> {
    if (!document.cookie.includes('XSRF-TOKEN=')) await fetch('/session/cookie');
    const token = document.cookie.split('; ').find((pair) => pair.startsWith('XSRF-TOKEN='));
    const form = new FormData();
    form.append('file', file);
    const answer = await fetch(path, {
        method: 'POST',
        body: form,
        headers: { Accept: 'application/json', 'X-XSRF-TOKEN': decodeURIComponent(token?.slice(11) ?? '') },
    });
    if (!answer.ok) throw new Refusal((await answer.json()) as Problem);
}
