<script lang="ts">
    import { Input, Select } from 'flowbite-svelte';
    import Broken from '../../parts/Broken.svelte';
    import { createInfiniteQuery, createQuery, keepPreviousData } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import { go, route } from '../../router';
    import { crumbs } from '../../state/crumbs.svelte';
    import { moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import SearchField from '../../parts/fields/SearchField.svelte';
    import EntryLeaf from './EntryLeaf.svelte';
    import DateField from '../../parts/fields/DateField.svelte';

    type Show = 'edits' | 'rules' | 'tasks' | 'administration';
    const number = $derived((route.params as { number?: string }).number);
    let show = $state<Show | ''>('');
    const NOTHING = { text: '', rule: '', outcome: '', person: '', record: '', from: '', until: '' };
    // Whoever comes from a figure of Today wants what it counts.
    let wanted = $state({ ...NOTHING, outcome: new URLSearchParams(location.search).get('outcome') ?? '' });
    const isNarrow = $derived(Object.values(wanted).some(Boolean));
    const asked = $derived({
        show: show || undefined,
        ...Object.fromEntries(Object.entries(wanted).filter(([, value]) => String(value).trim() !== '')),
    });
    const rules = createQuery(() => ({ queryKey: ['rules'], queryFn: () => ask(api.GET('/api/rules')) }));
    const ledger = createInfiniteQuery(() => ({
        queryKey: ['ledger', asked],
        placeholderData: keepPreviousData,
        initialPageParam: undefined as number | undefined,
        queryFn: ({ pageParam }) => ask(api.GET('/api/ledger', { params: { query: { ...asked, before: pageParam } } })),
        getNextPageParam: (page: Resources['LedgerPage']) => page.before ?? undefined,
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
                <p class="sub">
                    Every entry is numbered and stays.
                    <a class="link" href="/api/ledger/file?{new URLSearchParams(JSON.parse(JSON.stringify(asked)))}" download>Export</a>
                </p>
            </div>
            <div class="segments ml-auto" role="group" aria-label="Show">
                {#each shows as [value, label] (value)}<button type="button" aria-pressed={show === value} onclick={() => (show = value)}
                        >{label}</button
                    >{/each}
            </div>
        </header>
        <div
            class="grid grid-cols-3 gap-1.5 border-b border-ruled px-7 py-2 text-[12.5px] max-[700px]:grid-cols-2 max-[700px]:px-4"
            role="group"
            aria-label="Which entries"
        >
            <div class="col-span-full">
                <SearchField label="Words in what is said" value={wanted.text} onsearch={(text) => (wanted.text = text)} />
            </div>
            <Select placeholder="" aria-label="Of which rule" bind:value={wanted.rule}>
                <option value="">any rule</option>
                {#each rules.data ?? [] as rule (rule.id)}<option value={rule.id}>{rule.name}</option>{/each}
            </Select>
            <Select placeholder="" aria-label="What came of it" bind:value={wanted.outcome}>
                <option value="">any outcome</option>
                <option value="done">done</option>
                <option value="put_off">put off</option>
                <option value="left_out">left out</option>
                <option value="failed">failed</option>
            </Select>
            <Select placeholder="" aria-label="By whom" bind:value={wanted.person}>
                <option value="">anybody</option>
                {#each session.people as person (person.id)}<option value={person.handle}>{person.name}</option>{/each}
            </Select>
            <Input
                class="figures"
                aria-label="About which record"
                placeholder="T-0042"
                value={wanted.record}
                onchange={(event) => (wanted.record = event.currentTarget.value.trim())}
            />
            <DateField label="From" placeholder="from, as 1 Nov" max={wanted.until || undefined} bind:value={wanted.from} />
            <DateField label="Until" placeholder="until" min={wanted.from || undefined} bind:value={wanted.until} />
            {#if isNarrow}<button type="button" class="link" onclick={() => (wanted = { ...NOTHING })}>all</button>{/if}
        </div>
        <div class="scroll">
            {#if ledger.isError}
                <div class="empty">
                    <h2>The ledger cannot be shown.</h2>
                    <p>{said(ledger.error)}</p>
                </div>
            {:else if ledger.data && entries.length === 0}
                <div class="empty">
                    {#if isNarrow || show}
                        <h2>No entry is like that.</h2>
                        <p>
                            Widen the filter, or show <button
                                type="button"
                                class="link"
                                onclick={() => ((wanted = { ...NOTHING }), (show = ''))}>all</button
                            >.
                        </p>
                    {:else}
                        <h2>Nothing in ink yet.</h2>
                        <p>Whatever people and rules do is entered here.</p>
                    {/if}
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
