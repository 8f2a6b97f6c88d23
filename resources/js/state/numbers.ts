import { language } from './language.svelte';

/** "12,345", as people of a language write it. */
export function inFigures(count: number): string {
    return count.toLocaleString(language.tag);
}

const pointOf = (code: string) => (code === 'de' ? ',' : '.');
const grouped = (text: string, mark: string) => new RegExp(`^[+-]?\\d{1,3}(\\${mark}\\d{3})+$`).test(text);

/** What parts whole and rest: the last of two different marks; else the language's own, or the other where it parts no thousands. */
function parting(text: string, own: string): string {
    const other = own === ',' ? '.' : ',';
    const [ofOwn, ofOther] = [text.lastIndexOf(own), text.lastIndexOf(other)];
    if (ofOwn >= 0 && ofOther >= 0) return ofOwn > ofOther ? own : other;
    if (text.split(own).length > 2) return other;
    return ofOther >= 0 && !grouped(text, other) ? other : own;
}

/** A number as people of a language type it, with a point and without thousands; what is no number comes back as it is. */
export function typedNumber(typed: string, code: string = language.code): string {
    const text = typed.replace(/[\s\u00a0\u2009\u202f'’]/g, '').replace(/[−–]/g, '-');
    if (!/^[+-]?\d[\d.,]*$/.test(text)) return typed;
    const point = parting(text, pointOf(code));
    const group = point === ',' ? '.' : ',';
    const at = text.indexOf(point);
    const [whole, rest] = at < 0 ? [text, ''] : [text.slice(0, at), text.slice(at + 1)];
    if ((whole.includes(group) && !grouped(whole, group)) || !/^\d*$/.test(rest)) return typed;
    return whole.replaceAll(group, '').replace(/^\+/, '') + (rest ? `.${rest}` : '');
}

/** A number that is kept, as it is shown where it can be typed anew. */
export function shownNumber(kept: string, code: string = language.code): string {
    return /^-?\d+\.\d+$/.test(kept) ? kept.replace('.', pointOf(code)) : kept;
}
