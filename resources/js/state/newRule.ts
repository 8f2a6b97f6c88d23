import { api, ask } from '../api/client';
import { go } from '../router';

/** Begins a rule for records of a type, and goes to its page. */
export async function beginRule(type: string): Promise<void> {
    const file = {
        name: '',
        on: type,
        when: { kind: 'created_or_changed' },
        onlyIf: { kind: 'all', of: [] },
        fires: { kind: 'becomes_true' },
        lines: [],
    };
    const rule = await ask(api.POST('/api/rules', { body: { file } }));
    go(`/rules/${rule.id}`);
}
