<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, type Shapes } from '../../api/client';
    import EntryRow from '../../parts/EntryRow.svelte';
    import type { Document } from '../../state/document.svelte';
    import { moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import Proofs from './evidence/Proofs.svelte';
    import Remarks from './evidence/Remarks.svelte';
    import Rehearse from './evidence/Rehearse.svelte';

    type Tab = 'rehearse' | 'remarks' | 'proofs' | 'entries' | 'pages';
    let { rule, page }: { rule: Shapes['RuleShape']; page: Document } = $props();
    // svelte-ignore state_referenced_locally
    let tab = $state<Tab>(rule.hasDraft ? 'rehearse' : 'entries');
    const may = $derived(session.me?.mayEditRules ?? false);
    const broken = $derived(page.tried.filter((one) => !one.holds).length);
    const count = $derived(page.reading.problems.length || page.remarks.length);
    const entries = createQuery(() => ({
        queryKey: ['ledger', 'rule', rule.id],
        queryFn: () => ask(api.GET('/api/ledger', { params: { query: { rule: rule.id } } })),
    }));
    const pages = createQuery(() => ({
        queryKey: ['pages', rule.id],
        queryFn: () => ask(api.GET('/api/rules/{id}/pages', { params: { path: { id: rule.id } } })),
    }));

    export function show(which: Tab) {
        tab = which;
    }

    // Proofread a moment after the last stroke; until then the old remarks stand.
    $effect(() => {
        const file = page.file;
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

<section class="leaf right" style="--margin-at: 110px">
    <div class="tabs" role="tablist">
        <button type="button" role="tab" aria-selected={tab === 'rehearse'} onclick={() => (tab = 'rehearse')}>Rehearse</button>
        <button type="button" role="tab" aria-selected={tab === 'remarks'} onclick={() => (tab = 'remarks')}>
            Remarks {#if count}<span class="figures ml-1 rounded-full bg-marigold-wash px-1.5 text-[11px] text-marigold">{count}</span>{/if}
        </button>
        <button type="button" role="tab" aria-selected={tab === 'proofs'} onclick={() => (tab = 'proofs')}>
            Proofs {#if broken}<span class="figures ml-1 rounded-full bg-madder-wash px-1.5 text-[11px] text-madder">{broken}</span>{/if}
        </button>
        <button type="button" role="tab" aria-selected={tab === 'entries'} onclick={() => (tab = 'entries')}>Entries</button>
        <button type="button" role="tab" aria-selected={tab === 'pages'} onclick={() => (tab = 'pages')}>
            Pages {#if rule.page}<span class="figures mini ml-1">{rule.page}</span>{/if}
        </button>
    </div>
    <div class="scroll">
        {#if tab === 'rehearse'}
            <Rehearse {rule} {page} />
        {:else if tab === 'remarks'}
            <Remarks {page} {may} />
        {:else if tab === 'proofs'}
            <Proofs {rule} {page} {may} />
        {:else if tab === 'entries'}
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
            {#each pages.data ?? [] as published (published.number)}
                <div class="border-b border-ruled px-6 pt-4 pb-2">
                    <div class="flex items-baseline gap-2">
                        <h2>Page {published.number}</h2>
                        <span class="mini">{moment(published.publishedAt)}, {published.publishedBy}</span>
                        <a class="link ml-auto text-[12.5px]" href="/api/rules/{rule.id}/file?page={published.number}" download>Export</a>
                    </div>
                    <p class="mt-1.5 text-[13px] leading-relaxed text-ink-2">{published.reading.aloud}</p>
                </div>
            {:else}
                <div class="empty">
                    <h2>No page yet.</h2>
                    <p>Putting the draft in force makes page 1. A page is never changed; the next one takes its place.</p>
                </div>
            {/each}
        {/if}
    </div>
</section>
