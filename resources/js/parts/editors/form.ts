import type { Resources } from '../../api/client';
import type { Json, JsonObject } from '../../state/pointer';

/* What a form shows of a rule file, and what it makes of what is filled in. */
type Way = Resources['WayResource'];
type Field = Resources['FormFieldResource'];
type Filled = Record<string, Json>;

/** Keys of a length of time that stands in the object itself. */
const TIME = ['amount', 'unit', 'roll', 'time', 'clock'];

/** The way that what stands there was filled in. */
export function wayOf(ways: Way[], given: JsonObject | null): number {
    const found = ways.findIndex((way) => {
        if (way.with === null) return given === null;
        return given !== null && Object.entries(way.with as JsonObject).every(([key, value]) => given[key] === value);
    });
    return Math.max(0, found);
}

/** What each way shows to begin with: what stands there, or else what is usual. */
export function filledIn(ways: Way[], given: JsonObject | null, chosen: number): Filled[] {
    return ways.map((way, index) => {
        const is = index === chosen ? given : null;
        return Object.fromEntries(way.fields.map((field) => [field.key, shown(field, is, given)]));
    });
}

function shown(field: Field, is: JsonObject | null, given: JsonObject | null): Json {
    const starts = (field.starts ?? null) as Json;
    if (field.sort === 'time' && field.key === '') {
        // A time is kept when only the way changes.
        const time = Object.fromEntries(TIME.flatMap((key) => (given?.[key] === undefined ? [] : [[key, given[key]]])));
        return time.amount === undefined ? starts : (time as JsonObject);
    }
    const value = is?.[field.key];
    if (value !== undefined) return value;
    if (field.sort === 'tick') return false;
    // A number that may be left out is there to begin with.
    return field.isNeeded || (field.sort === 'number' && is === null) ? starts : null;
}

/** Words for after and before, where a time can lie before. */
export function sidesOf(field: Field, row: Filled): [string, string] | null {
    if (field.sides === null || (field.sidesWith !== null && (row[field.sidesWith] ?? null) === null)) return null;
    return field.sides as [string, string];
}

export function chosenOption(field: Field, value: Json | undefined): Resources['OfferedResource'] | undefined {
    return field.options.find((option) => option.value === value);
}

/** The object that a way makes of what is filled in. */
export function filled(way: Way, row: Filled, given: JsonObject | null): JsonObject {
    const own = way.fields.flatMap((field) => (field.key === '' ? TIME : [field.key]));
    const kept = way.keeps ? Object.entries(given ?? {}).filter(([key]) => !own.includes(key)) : [];
    const made: JsonObject = { ...Object.fromEntries(kept), ...((way.with ?? {}) as JsonObject) };
    for (const field of way.fields) {
        const value = row[field.key] ?? null;
        if (value === null || value === false) continue;
        if (field.sort === 'number') made[field.key] = Number(value);
        else if (field.sort === 'time') {
            const time = { ...(value as JsonObject) };
            if (sidesOf(field, row) === null) time.amount = Math.abs(Number(time.amount));
            if (field.key === '') Object.assign(made, time);
            else made[field.key] = time;
        } else made[field.key] = value;
    }
    return made;
}
