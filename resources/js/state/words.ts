import { inFigures } from './numbers';
import { language } from './language.svelte';

/** Marks a single word of a script as one that somebody reads; a sentence is known by its look (bin/lib/words.mjs). */
export const say = (word: string): string => word;

/** "1 row", "3 rows": of the forms of a language, the one that goes with a count; # stands for the count. */
export function counted(count: number, forms: string[], which: (count: number) => number = (some) => (some === 1 ? 0 : 1)): string {
    return (forms[which(count)] ?? forms.at(-1) ?? '').replace('#', inFigures(count));
}

/** "3 tickets": records of a type, counted. */
export function countedOf(count: number, type: { label: string; plural: string }): string {
    return `${inFigures(count)} ${within(count === 1 ? type.label : type.plural)}`;
}

/** A name that the company gave, within a sentence: English writes it small, German nouns stay large. */
export function within(label: string): string {
    return language.tag.startsWith('de') ? label : label.toLowerCase();
}
