<script lang="ts">
    import { untrack } from 'svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import PageRows from '../../parts/PageRows.svelte';
    import { Document } from '../../state/document.svelte';
    import type { JsonObject } from '../../state/pointer';
    import { toasts } from '../../state/toasts.svelte';
    import type { RuleDraft } from '../../state/written';

    /* The steps of a route, as the sentence they stand in on a rule page. */
    type Props = { type: string; steps: JsonObject[]; onchange: (steps: JsonObject[]) => void };
    let { type, steps, onchange }: Props = $props();
    /** What a line says besides its steps is said in the rule that takes the route. */
    const OTHER = ['/lines/0/why', '/lines/0/filled', '/lines/0/hold', '/lines/0/onlyIf', '/lines/0/at'];

    const rule = untrack(
        (): RuleDraft =>
            ({
                name: '',
                on: type,
                when: { kind: 'by_hand' },
                lines: [{ kind: 'sign_off', steps: $state.snapshot(steps) }],
            }) as unknown as RuleDraft,
    );
    const page = new Document<RuleDraft>(
        untrack(() => type),
        rule,
        { rows: [], problems: [], aloud: '' },
        { keep: read, failed: (thrown) => toasts.complain(said(thrown)) },
    );
    void read(page.file).then((reading) => (page.reading = reading));

    async function read(file: RuleDraft): Promise<Resources['ReadingResource']> {
        const reading = await ask(api.POST('/api/rules/read', { body: { file: file as Record<string, unknown> } }));
        onchange(((file.lines?.[0] as JsonObject | undefined)?.steps ?? []) as JsonObject[]);
        return reading;
    }

    const rows = $derived(
        page.reading.rows
            .filter((row) => row.at.startsWith('/lines/0'))
            .map((row) => ({ ...row, margin: '', when: null, words: row.words.filter((word) => !OTHER.includes(word.at ?? '')) })),
    );
</script>

<PageRows {rows} document={page} addsLines={false} />
