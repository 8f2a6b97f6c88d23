import { personExpression } from '../../parts/editors';
import type { JsonObject } from '../../state/pointer';

/** A rung of a ladder as it is edited. What the screen has no field for stays in what it was read from. */
export type Rung = { due: JsonObject; to: string; acts: string[]; read: JsonObject };

const ACTS = ['tell', 'reassign', 'raise'];

/** The key under which a way to find somebody is offered. */
export function keyOf(to: JsonObject): string {
    if (to.kind === 'manager') return `manager:${keyOf((to.of ?? {}) as JsonObject)}`;
    if (to.kind === 'in_turn') return `turn:${String(to.team)}`;
    if (to.kind === 'least_loaded') return `least:${String(to.team)}`;
    if (to.kind === 'in_field') return `field:${String(to.path)}`;
    return to.kind === 'named' ? String(to.handle) : String(to.kind);
}

export function rungOf(read: JsonObject): Rung {
    const due = { amount: 0, unit: 'working_day', ...((read.after ?? {}) as JsonObject) };
    return { due, to: keyOf((read.to ?? {}) as JsonObject), acts: (read.do as string[] | undefined) ?? [], read };
}

export function rungFile(rung: Rung): JsonObject {
    const next: JsonObject = { ...rung.read };
    const isAtOnce = Number(rung.due.amount) === 0 && Object.keys(rung.due).every((key) => ['amount', 'unit'].includes(key));
    if (isAtOnce && rung.read.after === undefined) delete next.after;
    else if (isAtOnce && Number((rung.read.after as JsonObject | undefined)?.amount ?? 0) !== 0) delete next.after;
    else next.after = rung.due;
    next.to = rung.to === keyOf((rung.read.to ?? {}) as JsonObject) && rung.read.to ? rung.read.to : personExpression(rung.to);
    const same =
        rung.acts.length === ((rung.read.do as string[] | undefined) ?? []).length &&
        rung.acts.every((act) => (rung.read.do as string[]).includes(act));
    next.do = same ? (rung.read.do ?? []) : ACTS.filter((act) => rung.acts.includes(act));
    return next;
}
