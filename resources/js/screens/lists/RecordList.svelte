<script lang="ts">
    import { MediaQuery } from 'svelte/reactivity';
    import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import Choose from '../../parts/Choose.svelte';
    import FilterBar from '../../parts/FilterBar.svelte';
    import SearchField from '../../parts/fields/SearchField.svelte';
    import Floating from '../../parts/Floating.svelte';
    import { go, route } from '../../router';
    import { crumbs } from '../../state/crumbs.svelte';
    import { session } from '../../state/session.svelte';
    import { Arrangement } from './arrangement.svelte';
    import ColumnChooser from './ColumnChooser.svelte';
    import ListBoard from './ListBoard.svelte';
    import ListGroups from './ListGroups.svelte';
    import ListTable from './ListTable.svelte';
    import Pages from './Pages.svelte';
    import { Selection } from './selection.svelte';
    import SelectionBar from './SelectionBar.svelte';
    import TakeOut from './TakeOut.svelte';
    import ViewTabs from './ViewTabs.svelte';
    import BinList from './BinList.svelte';
    import EditValue from '../records/EditValue.svelte';
    import RecordPreview from './RecordPreview.svelte';
    import { inFigures } from '../../state/numbers';
    import { say, within } from '../../state/words';

    const PER_PAGE = 25;
    type Row = Resources['RecordResource'];
    const phone = new MediaQuery('max-width: 640px');
    const typeName = $derived(String(route.params.type));
    const type = $derived(session.schema?.types.find((candidate) => candidate.name === typeName));
    $effect(() => crumbs.set({ label: 'Records', to: `/records/${typeName}` }, { label: type?.plural ?? 'Not found' }));

    const views = createQuery(() => ({
        queryKey: ['views', typeName],
        enabled: type !== undefined,
        queryFn: () => ask(api.GET('/api/records/{type}/views', { params: { path: { type: typeName } } })),
    }));
    const arrangement = new Arrangement(
        () => type,
        () => views.data ?? [],
    );
    const selection = new Selection();
    const condition = $derived(arrangement.condition());
    const isTable = $derived(arrangement.layout === 'table' && arrangement.group === null);
    /** A view that is asked for has to be known before what it shows can be. */
    const isReady = $derived(type !== undefined && (arrangement.param('view') === '' || views.data !== undefined));
    const query = $derived({ ...arrangement.query, filter: condition });

    const list = createQuery(() => ({
        queryKey: ['records', typeName, query, arrangement.page, isTable],
        enabled: isReady,
        placeholderData: keepPreviousData,
        queryFn: () =>
            ask(
                api.GET('/api/records/{type}', {
                    params: {
                        path: { type: typeName },
                        query: { ...query, page: arrangement.page, perPage: isTable ? PER_PAGE : 1, total: 'no' },
                    },
                }),
            ),
    }));
    // A page comes through an index at once; counting everything that fits may take a moment longer.
    const count = createQuery(() => ({
        queryKey: ['records', typeName, 'count', query.search, condition],
        enabled: isReady && list.data?.total === null,
        queryFn: () =>
            ask(
                api.GET('/api/records/{type}', {
                    params: { path: { type: typeName }, query: { search: query.search, perPage: 1, filter: condition } },
                }),
            ),
    }));
    const rows = $derived(isTable ? (list.data?.rows ?? []) : []);
    const columns = $derived(list.data?.columns ?? []);
    const total = $derived((list.data?.total ?? null) === null ? (count.data?.total ?? null) : (list.data?.total ?? null));
    const pages = $derived(Math.max(1, Math.ceil((total ?? arrangement.page * PER_PAGE + 1) / PER_PAGE)));
    let at = $state(0);
    let looked = $state.raw<Row | null>(null);
    const selected = $derived(isTable ? rows[Math.min(at, rows.length - 1)] : (looked ?? undefined));
    $effect(() => {
        void [typeName, query.search, condition];
        selection.clear();
        looked = null;
        at = 0;
    });

    let leaf = $state<HTMLElement>();
    let editing = $state.raw<{ row: Row; field: Resources['FieldResource'] | null; anchor: HTMLElement } | null>(null);

    function key(event: KeyboardEvent) {
        const tag = (event.target as HTMLElement).tagName;
        if (['INPUT', 'TEXTAREA', 'SELECT', 'BUTTON', 'A'].includes(tag) || event.ctrlKey || event.metaKey || editing) return;
        if (event.key === '/') leaf?.querySelector<HTMLElement>('input[type=search]')?.focus();
        else if (event.key === 'n' && type && session.may('create', typeName)) go(`/records/${typeName}/new`);
        else if (event.key === 'ArrowDown') step(1);
        else if (event.key === 'ArrowUp') step(-1);
        else if (event.key === 'PageDown' && isTable && arrangement.page < pages) arrangement.turnTo(arrangement.page + 1);
        else if (event.key === 'PageUp' && isTable && arrangement.page > 1) arrangement.turnTo(arrangement.page - 1);
        else if (event.key === ' ' && selected) selection.toggle(selected);
        else if (event.key === 'Enter' && selected) go(`/records/${typeName}/${selected.id}`);
        else if (event.key === 'e' && selected?.may.includes('change')) {
            const anchor = leaf?.querySelector<HTMLElement>('tr.on td:last-child');
            if (anchor) editing = { row: selected, field: null, anchor };
        } else return;
        event.preventDefault();
    }

    /** To the next row, also from one group into another. */
    function step(by: 1 | -1) {
        const shown = [...(leaf?.querySelectorAll<HTMLElement>('tr[data-index]') ?? [])];
        const here = shown.findIndex((row) => row.classList.contains('on'));
        const next = shown[here < 0 ? 0 : Math.min(shown.length - 1, Math.max(0, here + by))];
        next?.click();
        next?.scrollIntoView({ block: 'nearest' });
    }

    let isBinOpen = $state(false);
    let choosing = $state<{ what: 'columns' | 'group'; anchor: HTMLElement } | null>(null);
    const groupable = $derived((type?.fields ?? []).filter((field) => ['choice', 'person', 'reference', 'tick'].includes(field.type)));
    const summable = $derived((type?.fields ?? []).filter((field) => ['number', 'money', 'percent'].includes(field.type)));
    const groupedBy = $derived(arrangement.group ? session.path(typeName, arrangement.group)?.label : null);
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
    {#snippet search()}
        <SearchField
            label="Search {within(type?.plural ?? '')}"
            value={arrangement.search}
            onsearch={(text) => arrangement.set('search', text)}
        />
    {/snippet}
    <div class="spread grid-cols-[minmax(0,1fr)] min-[1180px]:grid-cols-[minmax(0,1fr)_248px]">
        <section class="leaf left" style="--margin-at: 90px" bind:this={leaf}>
            <header class="pb-0! border-0!">
                <div class="flex items-center gap-2">
                    <h1>{type.plural}</h1>
                    <span class="figures mini ml-1" aria-live="polite">{total === null ? '…' : inFigures(total)}</span>
                    {#if phone.current}<div class="min-w-0 flex-1">{@render search()}</div>{/if}
                    <span class="ml-auto flex items-center gap-2">
                        {#if session.may('export', typeName)}<span class="wide-only"><TakeOut {type} {query} /></span>{/if}
                        {#if session.may('create', typeName)}<a class="btn wide-only" href="/records/{typeName}/import">Import</a>
                            <a class="btn go" href="/records/{typeName}/new">New {within(type.label)}</a>{/if}
                    </span>
                </div>
            </header>
            <div class="tabs items-stretch px-7!">
                <ViewTabs {type} views={views.data ?? []} {arrangement} />
                {#if !phone.current}<div class="my-auto ml-auto w-52 shrink-0">{@render search()}</div>{/if}
            </div>
            <div class="arranged flex min-h-12 items-center gap-4 border-b border-ruled px-7 py-2">
                {#if selection.ids.length}
                    <SelectionBar {type} {selection} {total} search={arrangement.search} {condition} />
                {:else}
                    {#key `${typeName} ${arrangement.param('view')}`}
                        {#if isReady}<FilterBar
                                type={typeName}
                                filter={arrangement.filter}
                                onchange={(next) => {
                                    const written = next ? JSON.stringify(next) : '';
                                    if (written !== (arrangement.filter ? JSON.stringify(arrangement.filter) : ''))
                                        arrangement.set('filter', written);
                                }}
                            />{/if}
                    {/key}
                    <span class="ml-auto flex shrink-0 items-center gap-3 text-[12.5px]">
                        {#if type.stage}<span class="segments" role="group" aria-label="Layout">
                                {#each [['table', 'Table'], ['board', 'Board']] as const as [layout, label] (layout)}<button
                                        type="button"
                                        aria-pressed={arrangement.layout === layout}
                                        onclick={() => arrangement.set('layout', layout)}>{label}</button
                                    >{/each}
                            </span>{/if}
                        {#if arrangement.layout === 'table'}
                            <button
                                type="button"
                                class="link"
                                onclick={(event) => (choosing = { what: 'group', anchor: event.currentTarget })}
                                >{groupedBy ? `by ${groupedBy}` : 'Group'}</button
                            >
                            <button
                                type="button"
                                class="link"
                                onclick={(event) => (choosing = { what: 'columns', anchor: event.currentTarget })}>Columns</button
                            >
                        {/if}
                    </span>
                {/if}
            </div>
            <div class="scroll">
                {#if list.isError}
                    <div class="empty">
                        <h2>The list cannot be shown.</h2>
                        <p>{said(list.error)}</p>
                        <p class="mt-3"><button type="button" class="btn" onclick={() => arrangement.choose(null)}>Show all</button></p>
                    </div>
                {:else if list.data && (total === 0 || (isTable && rows.length === 0))}
                    <div class="empty">
                        <h2>
                            {arrangement.isNarrow ? `No ${within(type.label)} fits.` : `There are no ${within(type.plural)} yet.`}
                        </h2>
                        <p>
                            {arrangement.isNarrow ? 'Try fewer words, or remove a condition.' : `Start with “New ${within(type.label)}”.`}
                        </p>
                        {#if arrangement.isNarrow}<p class="mt-3">
                                <button type="button" class="btn" onclick={() => arrangement.choose(null)}>Show all</button>
                            </p>{/if}
                    </div>
                {:else if arrangement.layout === 'board' && isReady}
                    <ListBoard {type} {arrangement} selected={looked?.id ?? null} onselect={(row) => (looked = row)} />
                {:else if arrangement.group && isReady}
                    <ListGroups
                        {type}
                        by={arrangement.group}
                        {arrangement}
                        {selection}
                        selected={looked?.id ?? null}
                        onselect={(row) => (looked = row)}
                        onedit={(row, field, anchor) => (editing = { row, field, anchor })}
                    />
                {:else}
                    <ListTable
                        {type}
                        {rows}
                        {columns}
                        {arrangement}
                        {selection}
                        {at}
                        onat={(index) => (at = index)}
                        onedit={(row, field, anchor) => (editing = { row, field, anchor })}
                    />
                {/if}
            </div>
            {#if arrangement.view?.gone.length}<p class="callout warn shrink-0" role="status">
                    This view names what is not there any more, and leaves it out: {arrangement.view.gone.join(', ')}.
                </p>{/if}
            <div class="keys shrink-0 items-center">
                {#if session.may('delete', typeName)}<button type="button" class="link" onclick={() => (isBinOpen = true)}>Bin</button>{/if}
                {#if arrangement.layout === 'table'}<span><kbd>↑ ↓</kbd>move</span><span><kbd>Enter</kbd>open</span><span
                        ><kbd>Space</kbd>choose</span
                    ><span><kbd>e</kbd>change</span><span><kbd>/</kbd>search</span>
                    {#if isTable && pages > 1}<Pages
                            page={arrangement.page}
                            {pages}
                            onturn={(page) => ((at = 0), arrangement.turnTo(page))}
                        />{/if}
                {:else}<span><kbd>Tab ↑ ↓</kbd>move</span><span><kbd>Enter</kbd>open</span><span
                        ><kbd>Alt ← →</kbd>to another {within(type.fields.find((field) => field.name === type.stage)?.label ?? '')}</span
                    >{/if}
            </div>
        </section>
        <section class="leaf right max-[1179px]:hidden!">
            {#if selected}<RecordPreview record={selected} />{:else}<div class="empty">
                    <p>Choose a record, and it is shown here.</p>
                </div>{/if}
        </section>
    </div>
    {#if isBinOpen}<BinList {type} onclose={() => (isBinOpen = false)} />{/if}
    {#if choosing?.what === 'columns'}
        <Floating anchor={choosing.anchor} label="Columns" onclose={() => (choosing = null)}>
            <ColumnChooser {type} {columns} onchange={(next) => arrangement.set('columns', next.join(','))} />
        </Floating>
    {:else if choosing}
        <Floating anchor={choosing.anchor} label="Group" onclose={() => (choosing = null)}>
            <Choose
                title="Group by"
                chosen={arrangement.group ? [`by:${arrangement.group}`] : []}
                options={[
                    ...(arrangement.group ? [{ key: 'by:', label: say('nothing'), group: 'Group by' }] : []),
                    ...groupable.map((field) => ({ key: `by:${field.name}`, label: field.label, group: 'Group by' })),
                    ...summable.map((field) => ({
                        key: `sum:${field.name}`,
                        label: `${field.label}${arrangement.sums.includes(field.name) ? ' ✓' : ''}`,
                        group: 'Add up',
                    })),
                ]}
                onchoose={([chosen = '']) => {
                    const [what, name = ''] = chosen.split(':');
                    if (what === 'by') arrangement.set('group', name);
                    else
                        arrangement.set(
                            'sums',
                            (arrangement.sums.includes(name)
                                ? arrangement.sums.filter((one) => one !== name)
                                : [...arrangement.sums, name]
                            ).join(','),
                        );
                    choosing = null;
                }}
                onclose={() => (choosing = null)}
            />
        </Floating>
    {/if}
    {#if editing}
        <EditValue {type} record={editing.row} field={editing.field} anchor={editing.anchor} onclose={() => (editing = null)} />
    {/if}
{/if}
