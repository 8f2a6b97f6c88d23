import type { Resources } from '../api/client';

type Chosen = Resources['PreferencesResource'];

/** By day or by night is the wish of the system unless somebody chose; the page comes with their choice, and this changes it in place. */
export function show({ scheme, contrast }: Pick<Chosen, 'scheme' | 'contrast'>): void {
    const { dataset } = document.documentElement;
    if (scheme) dataset.scheme = scheme;
    else delete dataset.scheme;
    const wanted = contrast ?? (matchMedia('(prefers-contrast: more)').matches ? 'more' : null);
    if (wanted) dataset.contrast = wanted;
    else delete dataset.contrast;
}
