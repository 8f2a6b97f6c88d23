import { language } from './language.svelte';
import { clock } from './session.svelte';
import { say } from './words';

const DAY = 86_400_000;

const formats = new Map<string, Intl.DateTimeFormat>();

/** Making a format takes a hundred times what using it takes, and a screen has a hundred dates. */
function formatOf(tag: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
    const key = JSON.stringify([tag, options]);
    const format = formats.get(key) ?? new Intl.DateTimeFormat(tag, options);
    formats.set(key, format);
    return format;
}

/** The figures of an instant on the company's clock, each of two digits and the year of four. */
function parts(at: Date): Record<string, string> {
    const two = '2-digit';
    const options = { year: 'numeric', month: two, day: two, hour: two, minute: two, second: two, hourCycle: 'h23' } as const;
    const format = formatOf('en-GB', { timeZone: clock.zone, ...options });
    return Object.fromEntries(format.formatToParts(at).map((part) => [part.type, part.value]));
}

/** A day as people of the language write it, "24 Nov" or "24. Nov."; one of "2026-11-24" is told as it is, an instant by the company. */
function written(at: Date | string, options: Intl.DateTimeFormatOptions): string {
    const isDay = typeof at === 'string' && at.length === 10;
    return formatOf(language.tag, { timeZone: isDay ? 'UTC' : clock.zone, ...options })
        .format(new Date(isDay ? `${at}T00:00:00Z` : at))
        .replace(/Sept\b/, 'Sep')
        .replaceAll(',', '');
}

/** The company's local day of an instant, "2026-11-24". */
export function localDay(at: Date | string): string {
    const p = parts(new Date(at));
    return `${p.year}-${p.month}-${p.day}`;
}

/** "Tue 24 Nov 2026 09:40" */
export function longMoment(at: Date | string): string {
    return `${written(at, { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' })} ${timeOfDay(at)}`;
}

/** "24 Nov 09:40", with the year where it is not this one. */
export function moment(at: Date | string): string {
    return `${day(localDay(at))} ${timeOfDay(at)}`;
}

export function timeOfDay(at: Date | string): string {
    const p = parts(new Date(at));
    return `${p.hour}:${p.minute}`;
}

/** "24 Nov", with the year where it is not this one. */
export function day(date: string): string {
    const isThisYear = date.slice(0, 4) === localDay(clock.now).slice(0, 4);
    return written(date.slice(0, 10), { day: 'numeric', month: 'short', ...(isThisYear ? {} : { year: 'numeric' }) });
}

/** "Tuesday 24 November" */
export function dayName(date: string): string {
    return written(date.slice(0, 10), { weekday: 'long', day: 'numeric', month: 'long' });
}

/** Whole days from today to a date, negative for the past. */
export function daysUntil(date: string): number {
    return Math.round((Date.parse(date.slice(0, 10)) - Date.parse(localDay(clock.now))) / DAY);
}

/** "2 d late", "today", "tomorrow", "26 Nov": a due date as the margin shows it, with its tone. */
export function dueDate(date: string): { text: string; tone: string } {
    const days = daysUntil(date);
    if (days < 0) return { text: days > -100 ? `${-days} d late` : day(date), tone: 'madder' };
    if (days === 0) return { text: say('today'), tone: 'marigold' };
    return { text: days === 1 ? say('tomorrow') : day(date), tone: '' };
}

/** "in 2 days", "in 3 hours" */
export function ahead(at: string): string {
    const minutes = Math.round((Date.parse(at) - clock.now.getTime()) / 60_000);
    if (minutes < 1) return say('now');
    if (minutes < 60) return `in ${minutes} min`;
    if (minutes < 36 * 60) return `in ${Math.round(minutes / 60)} h`;
    return `in ${Math.round(minutes / 1440)} days`;
}

/** How long something lasted: "6 d", "3 h", "20 min" */
export function lasted(seconds: number): string {
    if (seconds < 3600) return `${Math.round(seconds / 60)} min`;
    if (seconds < 36 * 3600) return `${Math.round(seconds / 3600)} h`;
    return `${Math.round(seconds / 86_400)} d`;
}

export function initials(name: string): string {
    return name
        .split(/\s+/)
        .map((part) => part[0] ?? '')
        .slice(0, 2)
        .join('')
        .toUpperCase();
}

/** How far the company's clocks are ahead of UTC at an instant, in milliseconds. */
function offset(at: Date): number {
    const p = parts(at);
    return Date.parse(`${p.year}-${p.month}-${p.day}T${p.hour}:${p.minute}:${p.second}Z`) - at.getTime();
}

/** An instant as the company's clocks show it, in the form of a date and time field: "2026-11-24T10:40". */
export function toLocalField(iso: string): string {
    const at = new Date(iso);
    return new Date(at.getTime() + offset(at)).toISOString().slice(0, 16);
}

/** The instant that a date and time field names on the company's clocks; the first of the two where one comes twice. */
export function fromLocalField(local: string): string {
    const wall = Date.parse(`${local.slice(0, 16)}:00Z`);
    const before = wall - offset(new Date(wall - 86_400_000));
    const after = wall - offset(new Date(before));
    const instant = before + offset(new Date(before)) === wall ? before : after;
    return `${new Date(instant).toISOString().slice(0, 19)}Z`;
}
