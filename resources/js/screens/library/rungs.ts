import type { JsonObject } from '../../state/pointer';

/** A rung of a ladder as it is edited. What the screen has no field for stays in what it was read from. */
export type Rung = {
    due: JsonObject;
    /** Whom it finds, as JSON. */
    to: string;
    acts: string[];
    read: JsonObject;
    /** As it reads, where it is kept already. */
    said: string;
};

export function rungOf(read: JsonObject, said = ''): Rung {
    const due = { amount: 0, unit: 'working_day', ...((read.after ?? {}) as JsonObject) };
    return { due, to: JSON.stringify(read.to ?? {}), acts: (read.do as string[] | undefined) ?? [], read, said };
}

/** @param known all that a rung can do, in the order it is written */
export function rungFile(rung: Rung, known: string[]): JsonObject {
    const next: JsonObject = { ...rung.read };
    const isAtOnce = Number(rung.due.amount) === 0 && Object.keys(rung.due).every((key) => ['amount', 'unit'].includes(key));
    if (isAtOnce && (rung.read.after === undefined || Number((rung.read.after as JsonObject).amount ?? 0) !== 0)) delete next.after;
    else next.after = rung.due;
    next.to = JSON.parse(rung.to) as JsonObject;
    const had = (rung.read.do as string[] | undefined) ?? [];
    const same = rung.acts.length === had.length && rung.acts.every((act) => had.includes(act));
    next.do = same ? had : known.filter((act) => rung.acts.includes(act));
    return next;
}
