<script lang="ts">
    import { untrack } from 'svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import PageRows from '../../parts/PageRows.svelte';
    import { Document } from '../../state/document.svelte';
    import type { JsonObject } from '../../state/pointer';
    import { toasts } from '../../state/toasts.svelte';
    import type { RuleDraft } from '../../state/written';

    /* The questions of a slip, as the sentence they stand in on a rule page: each word is changed by itself. */
    type Props = { type: string; asks: JsonObject[]; onchange: (asks: JsonObject[]) => void };
    let { type, asks, onchange }: Props = $props();

    const rule = untrack(
        (): RuleDraft =>
            ({
                name: '',
                on: type,
                when: { kind: 'by_hand' },
                lines: [
                    {
                        kind: 'slip',
                        to: [{ kind: 'address', address: 'x@x.example' }],
                        subject: 'x',
                        body: '<p>x</p>',
                        asks: $state.snapshot(asks),
                    },
                ],
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
        onchange(((file.lines?.[0] as JsonObject | undefined)?.asks ?? []) as JsonObject[]);
        return reading;
    }

    /** Only what is asked; the words before it are of the line that sends a slip. */
    const words = $derived(page.reading.rows.filter((row) => row.at.startsWith('/lines/0')).flatMap((row) => row.words));
    const first = $derived(words.findIndex((word) => word.at?.startsWith('/lines/0/asks') ?? false));
    const last = $derived(words.findLastIndex((word) => word.at?.startsWith('/lines/0/asks') ?? false));
    const row = $derived(page.reading.rows.find((one) => one.at.startsWith('/lines/0')));
    /** A row for each question, and one to add another. */
    const rows = $derived.by(() => {
        if (!row || first < 0) return [];
        const found: (typeof row)[] = [];
        let number = 0;
        let between: typeof words = [];
        for (const word of words.slice(first, last + 1)) {
            const at = /^\/lines\/0\/asks\/(\d+)/.exec(word.at ?? '')?.[1];
            if (at === undefined) {
                between.push(word);
                continue;
            }
            // What stands between two questions leads to the second.
            const place = Number(at);
            const glue = place === number ? between : between.filter((one) => one.text !== ';');
            found[place] ??= { ...row, part: 'fires', at: `/lines/0/asks/${place}`, margin: '', when: null, words: [] };
            found[place]?.words.push(...glue, word);
            number = place;
            between = [];
        }
        return found.map((one, index) => ({ ...one, margin: index < asks.length ? String(index + 1) : '' }));
    });
</script>

<PageRows {rows} document={page} addsLines={false} />
