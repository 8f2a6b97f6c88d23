import { sendRaw } from './client';

/** Sends one file as a form, with what else goes with it; the generated client only speaks JSON. */
export async function upload<T = unknown>(path: string, file: File, besides: Record<string, string> = {}): Promise<T> {
    const form = new FormData();
    form.append('file', file);
    for (const [name, value] of Object.entries(besides)) form.append(name, value);
    const answer = await sendRaw(path, { method: 'POST', body: form });
    return (await answer.json().catch(() => null)) as T;
}
