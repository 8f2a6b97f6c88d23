import type { Shapes } from '../api/client';

type Entry = Shapes['EntryShape'];

/** What a line did, as an entry keeps it. */
export type Outcome =
    | { kind: 'set'; label: string; before: string; after: string; changed: boolean }
    | { kind: 'task'; title: string; person: string | null; path: string; stoodIn: boolean; due: string | null }
    | { kind: 'failed'; label: string; why: string };

export function outcomes(entry: Entry): Outcome[] {
    return (entry.data.did as Outcome[] | undefined) ?? [];
}

export function verdict(entry: Entry): Shapes['VerdictShape'] | undefined {
    return entry.data.why as Shapes['VerdictShape'] | undefined;
}

/** What a line did, in a few words. */
export function outcomeSaid(outcome: Outcome): string {
    if (outcome.kind === 'set')
        return outcome.changed ? `${outcome.label} set to ${outcome.after}` : `${outcome.label} was ${outcome.after} already`;
    if (outcome.kind === 'failed') return `${outcome.label} was left alone: ${outcome.why}`;
    return `Task “${outcome.title}” to ${outcome.person ?? 'nobody'}${outcome.due ? `, due ${outcome.due}` : ''}`;
}

const ADMINISTRATION: Record<string, string> = { rule_in_force: 'put in force', rule_paused: 'paused', rule_retired: 'retired' };

/** An entry as a headline: who or what, and what happened. */
export function headline(entry: Entry, numbered = false): { strong: string; rest: string } {
    const who = entry.who ?? 'Somebody';
    // A number never breaks at its hyphen.
    const what = numbered ? ` ${(entry.recordNumber ?? '').replace('-', '\u2011')}` : '';
    const title = String(entry.data.title ?? '');
    switch (entry.kind) {
        case 'created':
            return { strong: who, rest: `created${numbered ? what : ' it'}${entry.via === 'api' ? ' through the API' : ''}` };
        case 'changed': {
            const fields = entry.changes.map((change) => change.label);
            const list = fields.length > 3 ? `${fields.slice(0, 2).join(', ')} and ${fields.length - 2} more fields` : fields.join(', ');
            return { strong: who, rest: `changed ${list}${numbered ? ` of${what}` : ''}${entry.via === 'api' ? ' through the API' : ''}` };
        }
        case 'fired':
            return { strong: entry.ruleName ?? 'A rule', rest: `fired${numbered ? ` on${what}` : ''}` };
        case 'stopped':
            return {
                strong: ((entry.data.chain as string[] | undefined) ?? []).join(' → '),
                rest: `was stopped${numbered ? ` on${what}` : ''}`,
            };
        case 'task_done':
            return { strong: who, rest: `did “${title}”` };
        case 'task_reopened':
            return { strong: who, rest: `opened “${title}” again` };
        case 'task_due':
            return { strong: 'Task fell due:', rest: title };
        default:
            return {
                strong: entry.ruleName ?? 'A rule',
                rest: `${ADMINISTRATION[entry.kind] ?? entry.kind}, page ${entry.page}, by ${who}`,
            };
    }
}

/** The second line under a headline. */
export function detail(entry: Entry): string {
    if (entry.kind === 'fired') return outcomes(entry).map(outcomeSaid).join('. ');
    if (entry.kind === 'changed') return entry.changes.map((change) => `${change.label}: ${change.before} → ${change.after}`).join(' · ');
    if (entry.kind === 'stopped')
        return entry.data.cameRound
            ? 'The last rule had fired in this chain already, so the chain ends here.'
            : 'The chain had grown too long, so it ends here.';
    if (entry.kind === 'task_due') return entry.data.person ? `for ${entry.data.person}` : 'for nobody';
    return '';
}
