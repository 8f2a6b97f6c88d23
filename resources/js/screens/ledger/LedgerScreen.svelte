<script lang="ts">
    import Broken from '../../parts/Broken.svelte';
    import { createInfiniteQuery } from '@tanstack/svelte-query';
    import { api, ask, said, type Shapes } from '../../api/client';
    import { go, route } from '../../router';
    import { crumbs } from '../../state/crumbs.svelte';
    import { moment } from '../../state/moments';
    import EntryLeaf from './EntryLeaf.svelte';

    type Show = 'edits' | 'rules' | 'tasks' | 'administration';
    const number = $derived((route.params as { number?: string }).number);
    let show = $state<Show | ''>('');
    const ledger = createInfiniteQuery(() => ({
        queryKey: ['ledger', show],
        initialPageParam: undefined as number | undefined,
        queryFn: ({ pageParam }) => ask(api.GET('/api/ledger', { params: { query: { show: show || undefined, before: pageParam } } })),
        getNextPageParam: (page: Shapes['LedgerPage']) => page.before ?? undefined,
    }));
    const entries = $derived((ledger.data?.pages ?? []).flatMap((page) => page.entries));
    const selected = $derived(number ? Number(number) : entries[0]?.number);
    $effect(() =>
        number ? crumbs.set({ label: 'Ledger', to: '/ledger' }, { label: `Entry ${number}` }) : crumbs.set({ label: 'Ledger' }),
    );

    const shows: [Show | '', string][] = [
        ['', 'All'],
        ['rules', 'Rules'],
        ['edits', 'Edits'],
        ['tasks', 'Tasks'],
        ['administration', 'Administration'],
    ];

    function key(event: KeyboardEvent) {
        if (['INPUT', 'TEXTAREA', 'SELECT'].includes((event.target as HTMLElement).tagName)) return;
        const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
        const next = entries[entries.findIndex((entry) => entry.number === selected) + step];
        if (!step || !next) return;
        event.preventDefault();
        go(`/ledger/${next.number}`);
        document.querySelector(`[data-number="${next.number}"]`)?.scrollIntoView({ block: 'nearest' });
    }
</script>

<svelte:window onkeydown={key} />

<div class="spread grid-cols-[minmax(0,1fr)_minmax(360px,480px)]">
    <section class="leaf left" style="--margin-at: 124px">
        <header class="flex items-start gap-3">
            <div>
                <h1>Ledger</h1>
                <p class="sub">Every entry is numbered and stays.</p>
            </div>
            <div class="segments ml-auto" role="group" aria-label="Show">
                {#each shows as [value, label] (value)}<button type="button" aria-pressed={show === value} onclick={() => (show = value)}
                        >{label}</button
                    >{/each}
            </div>
        </header>
        <div class="scroll">
            {#if ledger.isError}
                <div class="empty">
                    <h2>The ledger cannot be shown.</h2>
                    <p>{said(ledger.error)}</p>
                </div>
            {:else if ledger.data && entries.length === 0}
                <div class="empty">
                    <h2>Nothing in ink yet.</h2>
                    <p>Whatever people and rules do is entered here.</p>
                </div>
            {/if}
            <div class="margined min-h-0!">
                {#each entries as entry (entry.number)}
                    <svelte:boundary>
                        {@const head = entry.headInLedger}
                        <a
                            class="line min-h-0!"
                            class:hot={entry.number === selected}
                            href="/ledger/{entry.number}"
                            data-number={entry.number}
                        >
                            <div class="m">{moment(entry.at)}</div>
                            <div class="b flex items-baseline gap-3 text-[13.5px]!">
                                <div class="min-w-0 flex-1">
                                    <div class="truncate">
                                        <span class="font-semibold">{head.strong}</span>
                                        {head.rest}
                                        {#if entry.recordTitle}<span class="text-ink-3">{entry.recordTitle}</span>{/if}
                                    </div>
                                    {#if entry.detail}<div class="truncate text-[12.5px] text-ink-3">
                                            {entry.detail.replaceAll('\n', ' · ')}
                                        </div>{/if}
                                </div>
                                <span class="figures mini shrink-0">No. {entry.number}</span>
                            </div>
                        </a>
                        {#snippet failed()}<Broken what="entry" />{/snippet}
                    </svelte:boundary>
                {/each}
                {#if ledger.hasNextPage}
                    <div class="line">
                        <div class="m"></div>
                        <div class="b">
                            <button type="button" class="link text-[13px]" onclick={() => ledger.fetchNextPage()}
                                >Show earlier entries</button
                            >
                        </div>
                    </div>
                {/if}
            </div>
        </div>
    </section>
    <section class="leaf right">
        {#if selected}<EntryLeaf number={selected} />{/if}
    </section>
</div>
