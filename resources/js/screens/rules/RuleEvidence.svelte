<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, type Resources } from '../../api/client';
    import EntryRow from '../../parts/EntryRow.svelte';
    import Tabs from '../../parts/Tabs.svelte';
    import type { Document } from '../../state/document.svelte';
    import { session } from '../../state/session.svelte';
    import AskWhy from '../rehearsal/AskWhy.svelte';
    import LookBack from '../rehearsal/LookBack.svelte';
    import Pages from '../rehearsal/Pages.svelte';
    import Proofs from '../rehearsal/Proofs.svelte';
    import Remarks from '../rehearsal/Remarks.svelte';
    import Rehearse from '../rehearsal/Rehearse.svelte';

    type Tab = 'rehearse' | 'look' | 'remarks' | 'proofs' | 'entries' | 'pages';
    let { rule, page, onreload }: { rule: Resources['RuleResource']; page: Document; onreload: () => void } = $props();
    // svelte-ignore state_referenced_locally
    let tab = $state<Tab>(rule.hasDraft && session.me?.seesAll ? (page.reading.problems.length ? 'remarks' : 'rehearse') : 'entries');
    const may = $derived(session.me?.mayEditRules ?? false);
    // Evidence is drawn from all records.
    const all = $derived(session.me?.seesAll ?? false);
    const broken = $derived(page.tried.filter((one) => !one.holds).length);
    const count = $derived(page.reading.problems.length || page.remarks.length);
    const tabs = $derived([
        ...(all
            ? [
                  { key: 'rehearse', label: 'Rehearse' },
                  { key: 'look', label: 'Look back' },
                  { key: 'remarks', label: 'Remarks', count, tone: 'marigold' as const },
                  { key: 'proofs', label: 'Proofs', count: broken, tone: 'madder' as const },
              ]
            : []),
        { key: 'entries', label: 'Entries' },
        { key: 'pages', label: 'Pages', count: rule.page ?? 0 },
    ]);
    const entries = createQuery(() => ({
        queryKey: ['ledger', 'rule', rule.id],
        enabled: session.has('see_ledger'),
        queryFn: () => ask(api.GET('/api/ledger', { params: { query: { rule: rule.id } } })),
    }));

    export function show(which: Tab) {
        tab = which;
    }

    // Proofread a moment after the last stroke; until then the old remarks stand.
    $effect(() => {
        const file = page.file;
        if (!all) return;
        const sound = page.reading.problems.length === 0;
        const timer = setTimeout(async () => {
            const found = sound ? await ask(api.POST('/api/remarks', { body: { file, rule: rule.id } })).catch(() => null) : [];
            if (found && file === page.file) page.remarks = found;
            const tried =
                sound && may
                    ? await ask(api.POST('/api/rules/{id}/proofs/try', { params: { path: { id: rule.id } }, body: { file } })).catch(
                          () => null,
                      )
                    : null;
            if (tried && file === page.file) page.tried = tried;
        }, 250);
        return () => clearTimeout(timer);
    });
</script>

<section class="leaf right" aria-label="Evidence" style="--margin-at: 110px">
    <Tabs {tabs} chosen={tab} onchoose={(key) => (tab = key as Tab)} label="Evidence" panel="scroll">
        {#snippet children(shown)}
            {#if shown === 'rehearse'}
                <Rehearse {rule} {page} />
            {:else if shown === 'look'}
                <LookBack {rule} {page} />
            {:else if shown === 'remarks'}
                <Remarks {page} {may} />
            {:else if shown === 'proofs'}
                <Proofs {rule} {page} {may} />
            {:else if shown === 'entries'}
                {#if session.has('see_ledger')}<AskWhy {rule} />{/if}
                {#if entries.data?.entries.length}
                    <div class="margined">
                        {#each entries.data.entries as entry (entry.number)}<EntryRow {entry} numbered />{/each}
                    </div>
                {:else if entries.data}
                    <div class="empty">
                        <h2>Nothing in ink yet.</h2>
                        <p>
                            {rule.status === 'in_force'
                                ? 'The rule is in force and waits for its first record.'
                                : 'Put the rule in force, and what it does is listed here.'}
                        </p>
                    </div>
                {/if}
            {:else}
                <Pages {rule} {may} {onreload} />
            {/if}
        {/snippet}
    </Tabs>
</section>
