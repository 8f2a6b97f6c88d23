import type { Shapes } from '../api/client';

type Entry = Shapes['EntryShape'];

/** What a line did, as an entry keeps it. */
export type Outcome =
    | { kind: 'set'; label: string; before: string; after: string; changed: boolean; on?: string }
    | { kind: 'task'; title: string; person: string | null; path: string; stoodIn: boolean; due: string | null }
    | { kind: 'message'; channel: string; to: string; subject: string; missing: string[] }
    | { kind: 'created'; record: string }
    | { kind: 'comment'; text: string; on?: string }
    | { kind: 'follow'; person: string; follows: boolean }
    | { kind: 'failed' | 'skipped'; label: string; why: string };

export function outcomes(entry: Entry): Outcome[] {
    return (entry.data.did as Outcome[] | undefined) ?? [];
}

export function verdict(entry: Entry): Shapes['VerdictShape'] | undefined {
    return entry.data.why as Shapes['VerdictShape'] | undefined;
}

const ANSWERED = ['created', 'changed', 'deleted', 'comment', 'file', 'task_done', 'by_hand'];

/** Whether rules were asked when it happened, so that each can be asked why it did or did not fire. */
export function wasAnswered(entry: Entry): boolean {
    return ANSWERED.includes(entry.kind) && entry.recordId !== null;
}

/** What a line did, in a few words. */
export function outcomeSaid(outcome: Outcome): string {
    const on = 'on' in outcome && outcome.on ? ` on ${outcome.on}` : '';
    switch (outcome.kind) {
        case 'set':
            return outcome.changed ? `${outcome.label}${on} set to ${outcome.after}` : `${outcome.label}${on} was ${outcome.after} already`;
        case 'failed':
            return `${outcome.label} could not be done: ${outcome.why}`;
        case 'skipped':
            return `Left out: ${outcome.label}, ${outcome.why}`;
        case 'message': {
            const what = { email: 'E-mail', sms: 'Text message', app: 'Note' }[outcome.channel] ?? 'Message';
            const missing = outcome.missing.length ? `, without ${outcome.missing.join(', ')}` : '';
            return `${what} ${outcome.subject ? `“${outcome.subject}” ` : ''}to ${outcome.to}${missing}`;
        }
        case 'created':
            return `Made ${outcome.record}`;
        case 'comment':
            return `Commented${on}: “${outcome.text}”`;
        case 'follow':
            return `${outcome.person} ${outcome.follows ? 'follows it' : 'follows it no more'}`;
        default:
            return `Task “${outcome.title}” to ${outcome.person ?? 'nobody'}${outcome.due ? `, due ${outcome.due}` : ''}`;
    }
}

const ADMINISTRATION: Record<string, string> = { rule_in_force: 'put in force', rule_paused: 'paused', rule_retired: 'retired' };

/** An entry as a headline: who or what, and what happened. */
export function headline(entry: Entry, numbered = false): { strong: string; rest: string } {
    const who = entry.who ?? 'Somebody';
    // A number never breaks at its hyphen.
    const what = numbered && entry.recordNumber ? ` ${entry.recordNumber.replace('-', '\u2011')}` : '';
    const title = String(entry.data.title ?? '');
    switch (entry.kind) {
        case 'created':
            if (entry.via === 'rule') return { strong: 'A rule', rest: `made ${numbered ? what.trim() : 'it'}` };
            return { strong: who, rest: `created${numbered ? what : ' it'}${entry.via === 'api' ? ' through the API' : ''}` };
        case 'deleted':
            return { strong: who, rest: `deleted${numbered ? what : ' it'}` };
        case 'restored':
            return { strong: who, rest: `brought${numbered ? what : ' it'} back` };
        case 'comment':
            return { strong: entry.via === 'rule' ? 'A rule' : who, rest: `commented${numbered ? ` on${what}` : ''}` };
        case 'file':
            return { strong: who, rest: `added the file ${String(entry.data.name ?? '')}${numbered ? ` to${what}` : ''}` };
        case 'by_hand':
            return { strong: who, rest: `ran ${entry.ruleName ?? 'a rule'} by hand${numbered ? ` on${what}` : ''}` };
        case 'refused':
            return { strong: entry.ruleName ?? 'A rule', rest: `refused a save${what ? ` of${what}` : ''} by ${who}` };
        case 'ready_again':
            return {
                strong: entry.ruleName ?? 'A rule',
                rest: `is ready again${numbered ? ` for${what}` : ''}${entry.via === 'person' ? `, by ${who}` : ''}`,
            };
        case 'rules_ordered':
            return { strong: who, rest: 'put the rules in another order' };
        case 'rule_in_set':
            return {
                strong: entry.ruleName ?? 'A rule',
                rest: entry.data.set
                    ? `stands in the either/or set “${String(entry.data.set)}”, by ${who}`
                    : `stands in no either/or set any more, by ${who}`,
            };
        case 'changed': {
            const fields = entry.changes.map((change) => change.label);
            const list = fields.length > 3 ? `${fields.slice(0, 2).join(', ')} and ${fields.length - 2} more fields` : fields.join(', ');
            return {
                strong: entry.via === 'rule' ? 'A rule' : who,
                rest: `changed ${list}${numbered ? ` of${what}` : ''}${entry.via === 'api' ? ' through the API' : ''}`,
            };
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
    if (entry.kind === 'fired') return outcomes(entry).map(outcomeSaid).join('\n');
    if (entry.kind === 'changed') return entry.changes.map((change) => `${change.label}: ${change.before} → ${change.after}`).join(' · ');
    if (entry.kind === 'stopped')
        return entry.data.cameRound
            ? 'The last rule had fired in this chain already, so the chain ends here.'
            : 'The chain had grown too long, so it ends here.';
    if (entry.kind === 'comment') return String(entry.data.text ?? '');
    if (entry.kind === 'refused') return String(entry.data.message ?? '');
    if (entry.kind === 'ready_again') return String(entry.data.reason ?? '');
    if (entry.kind === 'rules_ordered') return ((entry.data.order as string[] | undefined) ?? []).join(' · ');
    if (entry.kind === 'task_due') return entry.data.person ? `for ${entry.data.person}` : 'for nobody';
    return '';
}
