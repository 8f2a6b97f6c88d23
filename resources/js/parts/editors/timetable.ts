/* The recurrence rules (RFC 5545) that the editor can put together, as plain parts. */

export type Timetable = { freq: string; interval: number; days: string[]; day: string; rest: string };

export const WEEKDAYS: [string, string][] = [
    ['MO', 'Mon'],
    ['TU', 'Tue'],
    ['WE', 'Wed'],
    ['TH', 'Thu'],
    ['FR', 'Fri'],
    ['SA', 'Sat'],
    ['SU', 'Sun'],
];

/** The parts that the editor has fields for, with a unit. */
function shown(freq: string): string[] {
    return ['FREQ', 'INTERVAL', ...(freq === 'WEEKLY' ? ['BYDAY'] : freq === 'MONTHLY' ? ['BYDAY', 'BYMONTHDAY'] : [])];
}

export function timetableOf(rrule: string): Timetable {
    const parts = Object.fromEntries(
        rrule
            .toUpperCase()
            .split(';')
            .map((part) => part.split('=') as [string, string]),
    );
    const days = (parts.BYDAY ?? '').split(',').filter(Boolean);
    return {
        freq: parts.FREQ ?? 'DAILY',
        interval: Number(parts.INTERVAL ?? 1),
        days: days.length && parts.FREQ === 'WEEKLY' ? days : ['MO'],
        day: parts.FREQ === 'MONTHLY' ? (parts.BYMONTHDAY ?? days[0] ?? '1') : '1',
        // What the editor does not know stays as it is.
        rest: Object.keys(parts)
            .filter((name) => parts[name] && !shown(parts.FREQ ?? 'DAILY').includes(name))
            .map((name) => `;${name}=${parts[name]}`)
            .join(''),
    };
}

export function rruleOf(table: Timetable): string {
    const interval = table.interval > 1 ? `;INTERVAL=${table.interval}` : '';
    const on =
        table.freq === 'WEEKLY'
            ? `;BYDAY=${table.days.length ? table.days.join(',') : 'MO'}`
            : table.freq === 'MONTHLY'
              ? /[A-Z]/.test(table.day)
                  ? `;BYDAY=${table.day}`
                  : `;BYMONTHDAY=${table.day}`
              : '';
    return `FREQ=${table.freq}${interval}${on}${table.rest}`;
}
