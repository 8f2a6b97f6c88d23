<script lang="ts">
    import { Checkbox, Input } from 'flowbite-svelte';
    import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
    import { searchParams } from 'sv-router';
    import { api, ask, said } from '../../api/client';
    import FilterBar from '../../parts/FilterBar.svelte';
    import Shown from '../../parts/Shown.svelte';
    import { go, route } from '../../router';
    import { crumbs } from '../../state/crumbs.svelte';
    import { day, dueDate, lasted } from '../../state/moments';
    import type { ConditionDraft } from '../../state/written';
    import { clock, session } from '../../state/session.svelte';
    import RunButton from '../../parts/RunButton.svelte';
    import BulkChange from './BulkChange.svelte';
    import RecordPreview from './RecordPreview.svelte';

    const PER_PAGE = 25;
    const typeName = $derived(String(route.params.type));
    const type = $derived(session.schema?.types.find((candidate) => candidate.name === typeName));
    const columns = $derived((type?.columns ?? []).flatMap((name) => type?.fields.find((field) => field.name === name) ?? []));
    const margin = $derived(columns[0]?.type === 'date' ? columns[0] : null);
    const rest = $derived(margin ? columns.slice(1) : columns);
    const stageLabel = $derived(type?.fields.find((field) => field.name === type.stage)?.label ?? '');
    $effect(() => crumbs.set({ label: 'Records', to: '/records/ticket' }, { label: type?.plural ?? 'Not found' }));

    const sort = $derived(searchParams.get('sort') ?? '');
    // As it stands in the address: the router would make numbers of “0042” and of “1e3”.
    const search = $derived.by(() => (searchParams.get('search'), new URLSearchParams(location.search).get('search') ?? ''));
    const page = $derived(Number(searchParams.get('page') ?? 1));
    const filter = $derived(searchParams.get('filter') ?? '');
    const mine = $derived(searchParams.get('mine') === '1');
    const condition = $derived.by(() => {
        const parts: ConditionDraft[] = [];
        if (filter) parts.push(JSON.parse(String(filter)) as ConditionDraft);
        if (mine && type) parts.push({ kind: 'is', field: type.owner, value: session.me?.handle ?? '' });
        return parts.length ? JSON.stringify({ kind: 'all', of: parts }) : undefined;
    });

    const list = createQuery(() => ({
        queryKey: ['records', typeName, search, sort, page, condition],
        enabled: type !== undefined,
        placeholderData: keepPreviousData,
        queryFn: () =>
            ask(
                api.GET('/api/records/{type}', {
                    params: {
                        path: { type: typeName },
                        query: {
                            search: String(search) || undefined,
                            sort: String(sort) || undefined,
                            page,
                            perPage: PER_PAGE,
                            filter: condition,
                        },
                    },
                }),
            ),
    }));
    // A page comes through an index at once; counting everything that fits may take a moment longer.
    const count = createQuery(() => ({
        queryKey: ['records', typeName, 'count', search, condition],
        enabled: type !== undefined && list.data?.total === null,
        queryFn: () =>
            ask(
                api.GET('/api/records/{type}', {
                    params: { path: { type: typeName }, query: { search: String(search) || undefined, perPage: 1, filter: condition } },
                }),
            ),
    }));
    const rows = $derived(list.data?.rows ?? []);
    const total = $derived(list.data?.total ?? count.data?.total ?? null);
    const pages = $derived(Math.max(1, Math.ceil((total ?? page * PER_PAGE + 1) / PER_PAGE)));
    let at = $state(0);
    let picked = $state<number[]>([]);
    /** The version in which each was seen, also on other pages. */
    const versions = new Map<number, number>();
    $effect(() => rows.forEach((row) => versions.set(row.id, row.version)));
    $effect(() => {
        void [typeName, search, condition];
        picked = [];
    });
    function pick(id: number) {
        picked = picked.includes(id) ? picked.filter((other) => other !== id) : [...picked, id];
    }
    const allPicked = $derived(rows.length > 0 && rows.every((row) => picked.includes(row.id)));
    function pickPage() {
        const ids = rows.map((row) => row.id);
        picked = allPicked ? picked.filter((id) => !ids.includes(id)) : [...new Set([...picked, ...ids])];
    }
    let table = $state<HTMLTableElement>();
    const selected = $derived(rows[Math.min(at, rows.length - 1)]);

    function set(name: string, value: string) {
        if (value) searchParams.set(name, value);
        else searchParams.delete(name);
        if (name !== 'page') searchParams.delete('page');
        at = 0;
    }

    function sortBy(name: string) {
        set('sort', sort === name ? `-${name}` : sort === `-${name}` ? '' : name);
    }

    let typing: ReturnType<typeof setTimeout> | undefined;
    function typed(value: string) {
        clearTimeout(typing);
        typing = setTimeout(() => set('search', value), 200);
    }

    function key(event: KeyboardEvent) {
        const tag = (event.target as HTMLElement).tagName;
        if (['INPUT', 'TEXTAREA', 'SELECT', 'BUTTON', 'A'].includes(tag) || event.ctrlKey || event.metaKey) return;
        if (event.key === 'ArrowDown') at = Math.min(rows.length - 1, at + 1);
        else if (event.key === 'ArrowUp') at = Math.max(0, at - 1);
        else if (event.key === 'PageDown' && page < pages) set('page', String(page + 1));
        else if (event.key === 'PageUp' && page > 1) set('page', String(page - 1));
        else if (event.key === ' ' && selected) pick(selected.id);
        else if (event.key === 'Enter' && selected) go(`/records/${typeName}/${selected.id}`);
        else return;
        event.preventDefault();
        table?.querySelector(`[data-index="${at}"]`)?.scrollIntoView({ block: 'nearest' });
    }

    const arrow = (name: string) => (sort === name ? ' ↑' : sort === `-${name}` ? ' ↓' : '');
    const ariaSort = (name: string): 'ascending' | 'descending' | 'none' =>
        sort === name ? 'ascending' : sort === `-${name}` ? 'descending' : 'none';
    /** At most so many letters of a column are shown whole. */
    const letters: Record<string, number> = { person: 14, reference: 16, text: 16, choice: 14, choices: 16, tags: 16 };
    /** What a column needs for the page that is shown; the one that names the record takes what is left. */
    function width(field: (typeof columns)[number]): string | undefined {
        if (field.name === type?.title) return undefined;
        const longest = Math.max(field.label.length + 2, ...rows.map((row) => (row.shown[field.name] ?? '').length));
        return `${Math.round(Math.min(longest, letters[field.type] ?? 16) * 6.5) + 20}px`;
    }
    const isClosed = (row: (typeof rows)[number]) => row.values.status === 'closed';
</script>

<svelte:window onkeydown={key} />

{#if !type}
    <div class="spread">
        <section class="leaf solo">
            <div class="empty">
                <h2>There are no such records.</h2>
                <p><a class="link" href="/records/ticket">See the tickets</a></p>
            </div>
        </section>
    </div>
{:else}
    <div class="spread grid-cols-[minmax(0,1fr)] min-[1180px]:grid-cols-[minmax(0,1fr)_248px]">
        <section class="leaf left" style="--margin-at: 90px">
            <header class="pb-0! border-0!">
                <div class="flex items-center gap-3">
                    <h1>{type.plural}</h1>
                    <nav class="segments ml-2" aria-label="Kind of record">
                        {#each session.schema?.types ?? [] as other (other.name)}
                            <button type="button" aria-pressed={other.name === typeName} onclick={() => go(`/records/${other.name}`)}
                                >{other.plural}</button
                            >
                        {/each}
                    </nav>
                    {#if session.may('create', typeName)}<a class="btn go ml-auto" href="/records/{typeName}/new"
                            >New {type.label.toLowerCase()}</a
                        >{/if}
                </div>
            </header>
            <div class="tabs items-stretch px-7!">
                <div class="contents" role="tablist" aria-label="Whose">
                    <button type="button" role="tab" aria-selected={!mine} onclick={() => set('mine', '')}>All</button>
                    <button type="button" role="tab" aria-selected={mine} onclick={() => set('mine', '1')}>Mine</button>
                </div>
                <Input
                    class="my-auto ml-auto h-8 w-52"
                    type="search"
                    placeholder="Search {type.plural.toLowerCase()}"
                    aria-label="Search {type.plural.toLowerCase()}"
                    bind:value={() => search, (next) => typed(String(next ?? ''))}
                />
            </div>
            <div class="min-h-12 flex items-center gap-4 border-b border-ruled px-7 py-2">
                {#key typeName}
                    <FilterBar
                        type={typeName}
                        filter={filter ? (JSON.parse(String(filter)) as ConditionDraft) : null}
                        onchange={(next) => {
                            if (JSON.stringify(next ?? '') !== (filter ? String(filter) : '""'))
                                set('filter', next ? JSON.stringify(next) : '');
                        }}
                    />
                {/key}
                {#if picked.length}
                    <span class="ml-auto flex shrink-0 items-center gap-2 text-[12.5px] text-ink-2" aria-live="polite">
                        {picked.length} chosen
                        {#if session.may('change', typeName)}<BulkChange
                                {type}
                                records={picked.map((id) => ({ id, version: versions.get(id) ?? 0 }))}
                                ondone={() => (picked = [])}
                            />{/if}
                        {#if session.may('run', typeName)}<RunButton {type} records={picked} ondone={() => (picked = [])} />{/if}
                        <button type="button" class="link" onclick={() => (picked = [])}>none</button>
                    </span>
                {/if}
                {#if session.may('export', typeName)}<a
                        class="link {picked.length ? '' : 'ml-auto'} shrink-0 text-[12px]"
                        href="/api/records/{typeName}/file?{new URLSearchParams({
                            ...(search ? { search: String(search) } : {}),
                            ...(condition ? { filter: condition } : {}),
                        })}"
                        download>As a file</a
                    >{/if}
                <span
                    class="figures {picked.length || session.may('export', typeName) ? '' : 'ml-auto'} shrink-0 text-[12px] text-ink-2"
                    aria-live="polite">{total === null ? '…' : total.toLocaleString('en-GB')}</span
                >
            </div>
            <div class="scroll">
                {#if list.isError}
                    <div class="empty">
                        <h2>The list cannot be shown.</h2>
                        <p>{said(list.error)}</p>
                    </div>
                {:else if list.data && rows.length === 0}
                    <div class="empty">
                        <h2>
                            {search || filter || mine
                                ? `No ${type.label.toLowerCase()} fits.`
                                : `There are no ${type.plural.toLowerCase()} yet.`}
                        </h2>
                        <p>
                            {search || filter || mine
                                ? 'Search for less, or take a condition away.'
                                : `Start with “New ${type.label.toLowerCase()}”.`}
                        </p>
                        {#if search || filter || mine}<p class="mt-3">
                                <button type="button" class="btn" onclick={() => go(`/records/${typeName}`)}>Show all</button>
                            </p>{/if}
                    </div>
                {:else}
                    <table class="ledger" bind:this={table}>
                        <thead>
                            <tr>
                                {#if margin}<th class="first w-[98px]" aria-sort={ariaSort(margin.name)}
                                        ><button type="button" onclick={() => sortBy(margin.name)}
                                            >{margin.label}{arrow(margin.name)}</button
                                        ></th
                                    >{/if}
                                <th class={margin ? 'w-[88px]' : 'first w-[110px]'} aria-sort={ariaSort('number')}
                                    ><Checkbox
                                        class="mr-2 align-[-2px]"
                                        aria-label="Choose all on this page"
                                        checked={allPicked}
                                        onchange={pickPage}
                                    /><button type="button" onclick={() => sortBy('number')}>No.{arrow('number')}</button></th
                                >
                                {#each rest as field (field.name)}
                                    <th style:width={width(field)} aria-sort={ariaSort(field.name)}
                                        ><button type="button" onclick={() => sortBy(field.name)}>{field.label}{arrow(field.name)}</button
                                        ></th
                                    >
                                {/each}
                                {#if type.stage}<th
                                        class="w-[78px] whitespace-nowrap"
                                        title="How long it has been at its {stageLabel.toLowerCase()}">At {stageLabel.toLowerCase()}</th
                                    >{/if}
                            </tr>
                        </thead>
                        <tbody>
                            {#each rows as row, index (row.id)}
                                <svelte:boundary>
                                    <tr
                                        class:on={index === at}
                                        data-index={index}
                                        aria-selected={index === at}
                                        onclick={() => (at = index)}
                                        ondblclick={() => go(`/records/${typeName}/${row.id}`)}
                                    >
                                        {#if margin}
                                            {@const due = row.values[margin.name] ? dueDate(String(row.values[margin.name])) : null}
                                            <td class="first"
                                                ><span class={isClosed(row) ? '' : `tone-${due?.tone}`}
                                                    >{due ? (isClosed(row) ? day(String(row.values[margin.name])) : due.text) : ''}</span
                                                ></td
                                            >
                                        {/if}
                                        <td class={margin ? 'figures text-[11.5px]' : 'first'}
                                            ><Checkbox
                                                class="mr-2 align-[-2px]"
                                                aria-label="Choose {row.number}"
                                                checked={picked.includes(row.id)}
                                                onclick={(event) => event.stopPropagation()}
                                                onchange={() => pick(row.id)}
                                            /><a class="hover:text-iris" href="/records/{typeName}/{row.id}">{row.number}</a></td
                                        >
                                        {#each rest as field (field.name)}
                                            <td title={row.shown[field.name]}>
                                                {#if field.name === type.title}
                                                    <a class="font-medium hover:text-iris" href="/records/{typeName}/{row.id}"
                                                        >{row.title}</a
                                                    >
                                                {:else}<Shown record={row} {field} plain />{/if}
                                            </td>
                                        {/each}
                                        {#if type.stage}<td class="figures text-[11.5px] text-ink-2"
                                                >{row.stageSince
                                                    ? lasted((clock.now.getTime() - Date.parse(row.stageSince)) / 1000)
                                                    : ''}</td
                                            >{/if}
                                    </tr>
                                    {#snippet failed()}<tr
                                            ><td class="first" colspan={rest.length + 3}
                                                ><a class="text-madder" href="/records/{typeName}/{row.id}"
                                                    >{row.number} could not be shown here.</a
                                                ></td
                                            ></tr
                                        >{/snippet}
                                </svelte:boundary>
                            {/each}
                        </tbody>
                    </table>
                {/if}
            </div>
            <div class="keys shrink-0 items-center">
                <span><kbd>↑ ↓</kbd>move</span><span><kbd>Enter</kbd>open</span><span><kbd>Space</kbd>choose</span><span
                    ><kbd>PgUp PgDn</kbd>turn the page</span
                >
                <span class="ml-auto flex items-center gap-2">
                    <button
                        type="button"
                        class="btn quiet"
                        disabled={page <= 1}
                        onclick={() => set('page', page <= 2 ? '' : String(page - 1))}>← Previous</button
                    >
                    <span class="figures">{page} / {pages.toLocaleString('en-GB')}</span>
                    <button type="button" class="btn quiet" disabled={page >= pages} onclick={() => set('page', String(page + 1))}
                        >Next →</button
                    >
                </span>
            </div>
        </section>
        <section class="leaf right max-[1179px]:hidden!">
            {#if selected}<RecordPreview record={selected} />{/if}
        </section>
    </div>
{/if}
