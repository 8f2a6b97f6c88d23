/* Dates and times as people type them. Days are "2026-11-24", moments on the company's clocks "2026-11-24T09:30". */

const DAY = 86_400_000;
type Part = { month: number } | { weekday: number } | { number: number; written: string };

const at = (day: string) => new Date(`${day}T00:00:00Z`);
const named = (date: Date) => date.toISOString().slice(0, 10);

/** A day so many days on, before it where they are negative. */
export function shifted(day: string, days: number): string {
    return named(new Date(at(day).getTime() + days * DAY));
}

/** A day so many months on; the 31st becomes the last of a shorter month. */
function monthsOn(day: string, months: number): string {
    const date = at(day);
    const first = new Date(Date.UTC(date.getUTCFullYear(), date.getUTCMonth() + months, 1));
    const last = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 0)).getUTCDate();
    return shifted(named(first), Math.min(date.getUTCDate(), last) - 1);
}

function theDay(year: number, month: number, number: number): string | null {
    const date = new Date(Date.UTC(year, month - 1, number));
    return date.getUTCMonth() === month - 1 && date.getUTCDate() === number ? named(date) : null;
}

/** Of the years around this one, the one in which a day is nearest, so that "3 Jan" in December is the coming one. */
function nearest(today: string, month: number, number: number): string | null {
    const year = Number(today.slice(0, 4));
    const around = [year - 1, year, year + 1].flatMap((one) => theDay(one, month, number) ?? []);
    const far = (day: string) => Math.abs(at(day).getTime() - at(today).getTime());
    return around.sort((one, other) => far(one) - far(other))[0] ?? null;
}

/** Names of months and weekdays in a language, and in English besides. */
function names(tag: string): { months: string[][]; weekdays: string[][] } {
    const of = (options: Intl.DateTimeFormatOptions, dates: Date[]) =>
        dates.map((date) =>
            [tag, 'en-GB'].map((one) =>
                new Intl.DateTimeFormat(one, { ...options, timeZone: 'UTC' }).format(date).toLowerCase().replace('.', ''),
            ),
        );
    return {
        months: of(
            { month: 'long' },
            Array.from({ length: 12 }, (_, month) => new Date(Date.UTC(2026, month, 1))),
        ),
        // 5 January 2025 was a Sunday.
        weekdays: of(
            { weekday: 'long' },
            Array.from({ length: 7 }, (_, day) => new Date(Date.UTC(2025, 0, 5 + day))),
        ),
    };
}

function begins(all: string[][], word: string): number {
    return all.findIndex((some) => some.some((name) => word.length >= 2 && name.startsWith(word)));
}

const UNITS: Record<string, (today: string, count: number) => string> = {
    d: shifted,
    w: (today, count) => shifted(today, 7 * count),
    m: monthsOn,
    y: (today, count) => monthsOn(today, 12 * count),
};

/**
 * The day that somebody means: "tomorrow", "fri", "next fri", "+3", "-2w", "in 2 months", "24 nov", "24.11.", "24/11/27",
 * "2026-11-24"; null where it is none. A weekday is the coming one; a day without a year is the nearest one.
 */
export function readDay(typed: string, today: string, tag: string): string | null {
    const text = typed.trim().toLowerCase().replaceAll(/\s+/g, ' ');
    const spoken = { today: 0, tod: 0, heute: 0, tomorrow: 1, tom: 1, tmr: 1, morgen: 1, yesterday: -1, gestern: -1 }[text];
    if (spoken !== undefined) return shifted(today, spoken);
    const moved = /^(?:in )?([+-]?) ?(\d{1,4}) ?(d|w|m|y)?(?:ays?|eeks?|onths?|ears?)?$/.exec(text);
    if (moved && (moved[1] || moved[3])) {
        const days = UNITS[moved[3] ?? 'd']?.(today, Number(moved[2]) * (moved[1] === '-' ? -1 : 1));
        return days ?? null;
    }
    const whole = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(text);
    if (whole) return theDay(Number(whole[1]), Number(whole[2]), Number(whole[3]));
    const { months, weekdays } = names(tag);
    const parts: Part[] = [];
    const isNext = /^(next|nächster?n?) /.test(text);
    for (const word of text.replace(/^(next|nächster?n?) /, '').split(/[\s./,-]+/)) {
        if (!word) continue;
        const number = /^(\d{1,4})(?:st|nd|rd|th)?$/.exec(word)?.[1];
        if (number) parts.push({ number: Number(number), written: number });
        else if (begins(weekdays, word) >= 0) parts.push({ weekday: begins(weekdays, word) });
        else if (begins(months, word) >= 0) parts.push({ month: begins(months, word) + 1 });
        else return null;
    }
    return fromParts(parts, today, isNext, monthFirst(tag));
}

/** Whether people of a language write the month before the day. */
function monthFirst(tag: string): boolean {
    const order = new Intl.DateTimeFormat(tag, { dateStyle: 'short' }).formatToParts(new Date()).map((part) => part.type);
    return order.indexOf('month') < order.indexOf('day');
}

function fromParts(parts: Part[], today: string, isNext: boolean, isMonthFirst: boolean): string | null {
    const weekday = parts.find((part) => 'weekday' in part)?.weekday;
    const month = parts.find((part) => 'month' in part)?.month;
    const numbers = parts.filter((part) => 'number' in part);
    if (weekday !== undefined && numbers.length === 0 && month === undefined) {
        const ahead = (weekday - at(today).getUTCDay() + 7) % 7 || 7;
        const toMonday = (8 - at(today).getUTCDay()) % 7 || 7;
        return shifted(today, isNext ? toMonday + ((weekday + 6) % 7) : ahead);
    }
    const written = numbers.map((part) => part.number);
    if (isNext || written.length === 0) return null;
    if (month === undefined && written.length === 1) {
        const [number = 0] = written;
        const [year, inMonth] = [Number(today.slice(0, 4)), Number(today.slice(5, 7))];
        const here = theDay(year, inMonth, number);
        return here !== null && here >= today ? here : theDay(inMonth === 12 ? year + 1 : year, (inMonth % 12) + 1, number);
    }
    const [first = 0, second = 0] = written;
    const number = month === undefined && isMonthFirst ? second : first;
    const inMonth = month ?? (isMonthFirst ? first : second);
    const year = numbers.at(month === undefined ? 2 : 1);
    if (numbers.length > (month === undefined ? 3 : 2)) return null;
    if (!year) return nearest(today, inMonth, number);
    return year.written.length === 3 ? null : theDay(year.written.length === 4 ? year.number : 2000 + year.number, inMonth, number);
}

/** The time of day at the end of what is typed, "09:30", and what stands before it. */
function readTime(typed: string): { before: string; time: string } | null {
    const found = /(?:^|\s|T|at |um )(\d{1,2})(?:[:.h](\d{2}))?\s*(am|pm|uhr)?$/i.exec(typed.trim());
    if (!found || (!found[2] && !found[3])) return null;
    const noon = found[3]?.toLowerCase();
    const hour = noon === 'pm' || noon === 'am' ? (Number(found[1]) % 12) + (noon === 'pm' ? 12 : 0) : Number(found[1]);
    const minute = found[2] ?? '00';
    if (hour > 23 || Number(minute) > 59 || (noon === 'pm' && Number(found[1]) > 12)) return null;
    return { before: typed.trim().slice(0, found.index).trim(), time: `${String(hour).padStart(2, '0')}:${minute}` };
}

/** The moment that somebody means: a day, and a time behind it ("fri 14:30", "tomorrow 9am", "11:00"), or else the time that was there. */
export function readMoment(typed: string, today: string, tag: string, usual = '09:00'): string | null {
    const time = readTime(typed);
    const day = time && !time.before ? today : readDay(time?.before ?? typed, today, tag);
    return day && `${day}T${time?.time ?? usual}`;
}

/** "24 Nov 2026", and "Fri 24 Nov 2026" where the weekday helps, as people of a language write it. */
export function dayInWords(day: string, tag: string, weekday = false): string {
    const format = new Intl.DateTimeFormat(tag, {
        day: 'numeric',
        month: 'short',
        year: 'numeric',
        timeZone: 'UTC',
        ...(weekday ? { weekday: 'short' } : {}),
    });
    return format.format(at(day)).replace('Sept', 'Sep').replaceAll(',', '');
}
