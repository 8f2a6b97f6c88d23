<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, type Shapes } from '../../api/client';
    import EntryRow from '../../parts/EntryRow.svelte';
    import type { Document } from '../../state/document.svelte';
    import { session } from '../../state/session.svelte';
    import AskWhy from './evidence/AskWhy.svelte';
    import LookBack from './evidence/LookBack.svelte';
    import Pages from './evidence/Pages.svelte';
    import Proofs from './evidence/Proofs.svelte';
    import Remarks from './evidence/Remarks.svelte';
    import Rehearse from './evidence/Rehearse.svelte';

    type Tab = 'rehearse' | 'look' | 'remarks' | 'proofs' | 'entries' | 'pages';
    let { rule, page, onreload }: { rule: Shapes['RuleShape']; page: Document; onreload: () => void } = $props();
    // svelte-ignore state_referenced_locally
    let tab = $state<Tab>(rule.hasDraft && session.me?.seesAll ? (page.reading.problems.length ? 'remarks' : 'rehearse') : 'entries');
    const may = $derived(session.me?.mayEditRules ?? false);
    // Evidence is drawn from all records.
    const all = $derived(session.me?.seesAll ?? false);
    const broken = $derived(page.tried.filter((one) => !one.holds).length);
    const count = $derived(page.reading.problems.length || page.remarks.length);
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
    <div class="tabs" role="tablist">
        {#if all}<button type="button" role="tab" aria-selected={tab === 'rehearse'} onclick={() => (tab = 'rehearse')}>Rehearse</button>
            <button type="button" role="tab" aria-selected={tab === 'look'} onclick={() => (tab = 'look')}>Look back</button>
            <button type="button" role="tab" aria-selected={tab === 'remarks'} onclick={() => (tab = 'remarks')}>
                Remarks {#if count}<span class="figures ml-1 rounded-full bg-marigold-wash px-1.5 text-[11px] text-marigold">{count}</span
                    >{/if}
            </button>
            <button type="button" role="tab" aria-selected={tab === 'proofs'} onclick={() => (tab = 'proofs')}>
                Proofs {#if broken}<span class="figures ml-1 rounded-full bg-madder-wash px-1.5 text-[11px] text-madder">{broken}</span
                    >{/if}
            </button>{/if}
        <button type="button" role="tab" aria-selected={tab === 'entries'} onclick={() => (tab = 'entries')}>Entries</button>
        <button type="button" role="tab" aria-selected={tab === 'pages'} onclick={() => (tab = 'pages')}>
            Pages {#if rule.page}<span class="figures mini ml-1">{rule.page}</span>{/if}
        </button>
    </div>
    <div class="scroll">
        {#if tab === 'rehearse'}
            <Rehearse {rule} {page} />
        {:else if tab === 'look'}
            <LookBack {rule} {page} />
        {:else if tab === 'remarks'}
            <Remarks {page} {may} />
        {:else if tab === 'proofs'}
            <Proofs {rule} {page} {may} />
        {:else if tab === 'entries'}
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
    </div>
</section>
