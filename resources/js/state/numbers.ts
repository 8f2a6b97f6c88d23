import { language } from './language.svelte';

/** "12,345", as people of a language write it. */
export function inFigures(count: number): string {
    return count.toLocaleString(language.tag);
}
